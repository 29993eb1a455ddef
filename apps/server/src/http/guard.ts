import type { RequestHandler } from 'express';
import { Problem } from './problem';

const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]'];

/**
 * Serves only requests addressed to the loopback names, and state changes only from pages of this very address: a name
 * of somebody else's that resolves here (DNS rebinding) or another site's form reaches nothing.
 */
export function guard(port: () => number): RequestHandler {
  return (request, _response, next) => {
    const hosts = LOOPBACK.map((name) => `${name}:${port()}`);
    const host = request.headers.host ?? '';
    if (!hosts.includes(host)) throw new Problem('host-refused', `"${host}" is not this server; use ${hosts[0]}.`);
    const { origin } = request.headers;
    if (origin !== undefined && !hosts.some((one) => origin === `http://${one}`)) {
      throw new Problem('origin-refused', `Pages of ${origin} may not use this server.`);
    }
    next();
  };
}
