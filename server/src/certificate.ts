import { X509Certificate } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/** A certificate of one's own, from a folder that `./stylet certificate` has made. */
export interface Certificate {
  readonly key: Buffer;
  readonly cert: Buffer;
  /** The one that devices are to trust. */
  readonly authority: Buffer;
  /** The names and addresses it is for. */
  readonly hosts: readonly string[];
}

/** Reads the certificate in a folder. Throws what the file system does, or Error for what is none. */
export function readCertificate(folder: string): Certificate {
  const read = (name: string): Buffer => readFileSync(join(folder, name));
  const cert = read('server.pem');
  const { subjectAltName = '' } = new X509Certificate(cert);
  const hosts = subjectAltName
    .split(', ')
    .map((entry) => entry.slice(entry.indexOf(':') + 1).toLowerCase());
  return { key: read('server.key'), cert, authority: read('authority.pem'), hosts };
}
