import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A PDF as qpdf locks it with a password. */
export function lockedPdf(bytes: Uint8Array, password: string): Buffer {
  const folder = mkdtempSync(join(tmpdir(), 'stylet-locked-'));
  const [from, to] = [join(folder, 'from.pdf'), join(folder, 'to.pdf')];
  writeFileSync(from, bytes);
  execFileSync('qpdf', ['--encrypt', password, 'owner', '256', '--', from, to]);
  const result = readFileSync(to);
  rmSync(folder, { recursive: true });
  return result;
}
