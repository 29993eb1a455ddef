import { createHash, randomBytes } from 'node:crypto';
import { parse } from 'auth-header';
import type { Login } from './access';

/** How a printer wants to be told who asks (RFC 7235, 4.1). */
export type Challenge = { readonly kind: 'basic' } | Digest;

interface Digest {
  readonly kind: 'digest';
  readonly realm: string;
  readonly nonce: string;
  readonly opaque: string | null;
  readonly algorithm: Algorithm | null;
  /** Whether it takes "auth", by which each request is numbered (RFC 7616, 3.4). */
  readonly isCounted: boolean;
}

const ALGORITHMS = ['SHA-256', 'SHA-256-sess', 'MD5', 'MD5-sess'] as const;
type Algorithm = (typeof ALGORITHMS)[number];

/** The best of several challenges: a digest, by the better algorithm, before a password as it is; null: none is known here. */
export function readChallenge(headers: readonly string[]): Challenge | null {
  const told = headers.flatMap((header): Challenge[] => {
    if (!/^(basic|digest)\s/i.test(header)) return [];
    const { scheme, params } = parse(header);
    if (/^basic$/i.test(scheme)) return [{ kind: 'basic' }];
    return /^digest$/i.test(scheme) ? (digestOf(params) ?? []) : [];
  });
  const rank = (one: Challenge): number =>
    one.kind === 'basic' ? ALGORITHMS.length + 1 : ALGORITHMS.indexOf(one.algorithm ?? 'MD5');
  return told.sort((one, other) => rank(one) - rank(other))[0] ?? null;
}

function digestOf(params: Readonly<Record<string, unknown>>): Digest[] | null {
  const { realm, nonce, opaque, algorithm, qop } = params;
  if (typeof realm !== 'string' || typeof nonce !== 'string') return null;
  const known = ALGORITHMS.find((one) => one.toLowerCase() === `${algorithm as string}`.toLowerCase()) ?? null;
  if (algorithm !== undefined && known === null) return null;
  const ways = typeof qop === 'string' ? qop.split(',').map((way) => way.trim().toLowerCase()) : [];
  // One that wants the whole document in its sum ("auth-int" alone) is not known here.
  if (ways.length > 0 && !ways.includes('auth')) return null;
  const told = typeof opaque === 'string' ? opaque : null;
  return [{ kind: 'digest', realm, nonce, opaque: told, algorithm: known, isCounted: ways.length > 0 }];
}

/** What the request is about, as far as a digest tells. */
interface Requested {
  readonly method: string;
  /** Its path, as the request has it. */
  readonly path: string;
  /** How many requests were made with this challenge, this one among them. */
  readonly count: number;
  /** Made up for this request; only tests give one. */
  readonly ownNonce?: string;
}

/** The header that tells who asks (RFC 7617, 2; RFC 7616, 3.4). */
export function authorization(challenge: Challenge, { name, password }: Login, requested: Requested): string {
  if (challenge.kind === 'basic') return `Basic ${Buffer.from(`${name}:${password}`).toString('base64')}`;
  const { realm, nonce, opaque, algorithm, isCounted } = challenge;
  const { method, path, count, ownNonce = randomBytes(16).toString('hex') } = requested;
  const kind = algorithm?.startsWith('SHA-256') ? 'sha256' : 'md5';
  const sum = (text: string): string => createHash(kind).update(text).digest('hex');
  const own = sum(`${name}:${realm}:${password}`);
  const secret = algorithm?.endsWith('-sess') ? sum(`${own}:${nonce}:${ownNonce}`) : own;
  const number = count.toString(16).padStart(8, '0');
  const between = isCounted ? `${nonce}:${number}:${ownNonce}:auth` : nonce;
  const response = sum(`${secret}:${between}:${sum(`${method}:${path}`)}`);
  return [
    `Digest username=${quoted(name)}`,
    `realm=${quoted(realm)}`,
    `nonce=${quoted(nonce)}`,
    `uri=${quoted(path)}`,
    `response="${response}"`,
    ...(algorithm ? [`algorithm=${algorithm}`] : []),
    ...(opaque === null ? [] : [`opaque=${quoted(opaque)}`]),
    ...(isCounted ? ['qop=auth', `nc=${number}`] : []),
    ...(isCounted || algorithm?.endsWith('-sess') ? [`cnonce="${ownNonce}"`] : []),
  ].join(', ');
}

const quoted = (text: string): string => `"${text.replace(/["\\]/g, '\\$&')}"`;
