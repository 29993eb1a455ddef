import type { RequestHandler } from 'express';
import type { IncomingHttpHeaders } from 'node:http';
import { Problem } from './problem';

const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]'];

/**
 * Serves only requests addressed to the loopback names, and state changes only from pages of this very address: a name
 * of somebody else's that resolves here (DNS rebinding) or another site's form reaches nothing.
 */
export function guard(port: () => number): RequestHandler {
  return (request, _response, next) => {
    const refused = refusal(request.headers, port());
    if (refused) throw refused;
    next();
  };
}

/** Why a request with these headers is not served at a port; null where it is. */
export function refusal({ host = '', origin }: IncomingHttpHeaders, port: number): Problem | null {
  const hosts = LOOPBACK.map((name) => `${name}:${port}`);
  if (!hosts.includes(host)) return new Problem('host-refused', `"${host}" is not this server; use ${hosts[0]}.`);
  if (origin === undefined || hosts.some((one) => origin === `http://${one}`)) return null;
  return new Problem('origin-refused', `Pages of ${origin} may not use this server.`);
}
