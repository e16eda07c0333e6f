/** A file on this machine's disk, known by the SHA-256 of its bytes. */
export interface SpooledFile {
  readonly path: string;
  readonly digest: string;
  readonly size: number;
}
