import type { IncomingHttpHeaders } from 'node:http';

const NAMES = ['127.0.0.1', 'localhost', '[::1]'];

/**
 * Why a request is not served by what is for this machine alone: it is addressed to another name that leads here (DNS rebinding), or
 * comes from a page of another site. Null: it is.
 */
export function whyRefused({ host = '', origin }: IncomingHttpHeaders, port: number): 'host' | 'origin' | null {
  const hosts = NAMES.map((name) => `${name}:${port}`);
  if (!hosts.includes(host)) return 'host';
  return origin === undefined || hosts.some((one) => origin === `http://${one}`) ? null : 'origin';
}
