import { IppError } from './ipp-error';
import { isForbiddenHost } from './reachable';

/** The port of an address that names none (RFC 8010, section 4.2). */
const PORT = '631';

const ADDRESS = /^(ipps?):\/\/([^/?#\s]+)([^?#\s]*)$/i;

interface Parts {
  readonly scheme: 'ipp' | 'ipps';
  /** What HTTP asks. */
  readonly url: URL;
}

/** @throws IppError */
function readAddress(printerUri: string): Parts {
  const [, scheme = '', authority = '', path = ''] = ADDRESS.exec(printerUri) ?? [];
  // What stands before the host is a name and a password: never told on, not even to say that it is wrong.
  if (authority.includes('@') || (authority === '' && printerUri.includes('@'))) {
    throw new IppError(
      'an address with a password in it is not taken: everybody who opens the list would read it',
      null,
    );
  }
  const secure = scheme.toLowerCase() === 'ipps';
  const http = `${secure ? 'https' : 'http'}://${authority}${path}`;
  if (authority === '' || !URL.canParse(http)) {
    throw new IppError(
      `"${printerUri.slice(0, 200)}" is not a printer's address; write one like ipp://host:631/ipp/print`,
      null,
    );
  }
  const url = new URL(http);
  if (isForbiddenHost(url.hostname)) throw new IppError(`${url.hostname} is no address of a printer`, null);
  // Not HTTP's own; ":80" must be given as it is.
  if (!/:\d+$/.test(authority)) url.port = PORT;
  return { scheme: secure ? 'ipps' : 'ipp', url };
}

/** An address to be shown: one that was taken up before passwords were refused may hold one. */
export const withoutPassword = (printerUri: string): string => printerUri.replace(/\/\/.*@/, '//');

/** The address by which HTTP reaches an IPP printer (RFC 8010, section 4). @throws IppError for any other scheme */
export const httpAddress = (printerUri: string): URL => readAddress(printerUri).url;

/**
 * An address as it is written here, however a person does: host in small letters and without the root's dot, the port always
 * there, no slash at its end (RFC 3986, 6.2.2 and 6.2.3).
 *
 * @throws IppError
 */
export function canonicalUri(printerUri: string): string {
  const { scheme, url } = readAddress(printerUri.trim());
  const port = url.port === '' ? (scheme === 'ipps' ? '443' : '80') : url.port;
  return `${scheme}://${url.hostname.replace(/\.$/, '')}:${port}${url.pathname.replace(/\/+$/, '')}`;
}
