import type { RequestHandler } from 'express';
import type { IncomingHttpHeaders } from 'node:http';
import { whyRefused } from '@foglio/ipp/serving';
import { Problem } from './problem';

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
export function refusal(headers: IncomingHttpHeaders, port: number): Problem | null {
  switch (whyRefused(headers, port)) {
    case 'host':
      return new Problem('host-refused', `"${headers.host ?? ''}" is not this server; use 127.0.0.1:${port}.`);
    case 'origin':
      return new Problem('origin-refused', `Pages of ${headers.origin} may not use this server.`);
    case null:
      return null;
  }
}
