import { Agent } from 'node:https';
import { connect, type ConnectionOptions, type TLSSocket } from 'node:tls';

/** A printer's certificate, as a person may compare it with what the printer shows. */
export interface Certificate {
  /** SHA-256, "AB:CD:…". */
  readonly fingerprint: string;
  /** Whose it says it is. */
  readonly subject: string;
  /** Until when it holds, as it says. */
  readonly validTo: string;
}

/** A certificate that no authority vouches for and no person has said to trust. */
export class CertificateUnknown extends Error {
  override readonly name = 'CertificateUnknown';

  constructor(
    readonly certificate: Certificate,
    /** Whether another one was trusted. */
    readonly isChanged: boolean,
  ) {
    super('its certificate is not trusted');
  }
}

/**
 * Protected connections to a printer: with a certificate that an authority vouches for, or the very one that a person trusts.
 * Nothing is sent before that is looked at.
 */
export class TrustingAgent extends Agent {
  constructor(
    private readonly fingerprint: string | null,
    keeping: ConstructorParameters<typeof Agent>[0],
  ) {
    super(keeping);
  }

  /** Called by Node for each new connection; its types leave it out. */
  createConnection(options: ConnectionOptions, callback: (error: Error | null, socket?: TLSSocket) => void): undefined {
    const socket = connect({ ...options, rejectUnauthorized: false });
    const fail = (error: Error): void => callback(error);
    socket.once('error', fail);
    socket.once('secureConnect', () => {
      socket.off('error', fail);
      const certificate = certificateOf(socket);
      if (socket.authorized || certificate.fingerprint === this.fingerprint) return callback(null, socket);
      socket.destroy();
      callback(new CertificateUnknown(certificate, this.fingerprint !== null));
    });
  }
}

function certificateOf(socket: TLSSocket): Certificate {
  const { fingerprint256, subject, valid_to: validTo } = socket.getPeerCertificate();
  const name = [subject?.CN, subject?.O].flat().filter(Boolean).join(', ');
  return { fingerprint: fingerprint256, subject: name || 'nobody in particular', validTo };
}
