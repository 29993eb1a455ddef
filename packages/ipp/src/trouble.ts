/** Why a request was ended here. */
export class Trouble extends Error {
  override readonly name = 'Trouble';
}

/** What a person makes of what a network or a machine reports by these codes (errno(3), getaddrinfo(3), OpenSSL). */
const IN_WORDS: Readonly<Record<string, string>> = {
  ECONNREFUSED: 'nothing listens there; see that the printer is switched on and the address is right',
  ENOTFOUND: 'no machine of that name is known in the network',
  EAI_AGAIN: 'names cannot be looked up just now; see whether this machine is in the network',
  EHOSTUNREACH: 'there is no way to it in the network',
  ENETUNREACH: 'this machine has no way to that network',
  EHOSTDOWN: 'it is switched off',
  ETIMEDOUT: 'it does not answer',
  ECONNRESET: 'the connection broke off',
  EPIPE: 'the connection broke off',
  ECONNABORTED: 'the connection broke off',
  ABORT_ERR: 'asking was called off',
  EPROTO: 'it does not speak over a protected connection; write its address with ipp:',
};

/** What kept a printer from being asked, in a sentence without its end. */
export function sayTrouble(error: unknown): string {
  const { code = '', message } = error as NodeJS.ErrnoException;
  // Where several addresses of one name were tried, each has its own reason; the first stands for all.
  const [first] = (error as { readonly errors?: readonly NodeJS.ErrnoException[] }).errors ?? [];
  if (code.startsWith('HPE_')) return 'what answers there is no printer';
  const inWords = IN_WORDS[code.startsWith('ERR_SSL_') ? 'EPROTO' : code || (first?.code ?? '')];
  return inWords ?? (message || 'the connection broke off');
}
