import { lookup, type LookupAddress, type LookupAllOptions } from 'node:dns';
import { BlockList, isIP, isIPv6, type LookupFunction } from 'node:net';

/**
 * Where no printer is, but a machine's own services may be: link-local addresses, by which clouds tell their secrets (RFC
 * 3927, RFC 4291 section 2.5.6), two further such addresses in use (common practice), and addresses of nobody or of many.
 */
const FORBIDDEN = new BlockList();
FORBIDDEN.addSubnet('169.254.0.0', 16);
FORBIDDEN.addSubnet('fe80::', 10, 'ipv6');
FORBIDDEN.addAddress('fd00:ec2::254', 'ipv6');
FORBIDDEN.addAddress('100.100.100.200');
FORBIDDEN.addSubnet('0.0.0.0', 8);
FORBIDDEN.addAddress('::', 'ipv6');
FORBIDDEN.addSubnet('224.0.0.0', 4);
FORBIDDEN.addSubnet('ff00::', 8, 'ipv6');
FORBIDDEN.addAddress('255.255.255.255');

const isForbidden = (address: string): boolean => FORBIDDEN.check(address, isIPv6(address) ? 'ipv6' : 'ipv4');

/** Whether a host that is written as an address is one that may not be asked; a name is looked at when it is looked up. */
export function isForbiddenHost(host: string): boolean {
  const address = host.replace(/^\[|\]$/g, '');
  return isIP(address) !== 0 && isForbidden(address);
}

/** Looks a name up as always, but gives no forbidden address: what is connected to is the very address that was looked at. */
export const lookupReachable: LookupFunction = (hostname, options, callback) => {
  const all: LookupAllOptions = { ...options, all: true };
  lookup(hostname, all, (error, addresses: LookupAddress[]) => {
    const allowed = error ? [] : addresses.filter(({ address }) => !isForbidden(address));
    const [first] = allowed;
    if (error) return callback(error, '', 4);
    if (!first) return callback(new Error(`${hostname} is at an address that is no printer’s`), '', 4);
    if (options.all) callback(null, allowed);
    else callback(null, first.address, first.family);
  });
};
