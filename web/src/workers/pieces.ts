/** Bytes of a file, and where in it they are. */
export interface Piece {
  readonly begin: number;
  readonly bytes: Uint8Array<ArrayBuffer>;
  /** Of the whole file, in bytes. */
  readonly size: number;
  /** Tells one state of the file from another. */
  readonly tag: string | null;
}

/** RFC 9110, 14.4: where the bytes of an answer are, and how many there are in all. */
const CONTENT_RANGE = /^bytes (\d+)-(\d+)\/(\d+)$/;

/** The bytes from `begin` to before `end`, or the last so many. */
export type Wanted = { readonly begin: number; readonly end: number } | { readonly last: number };

/** Part of a file that is at hand. */
export async function pieceOf(blob: Blob, wanted: Wanted): Promise<Piece> {
  const { size } = blob;
  const begin = 'last' in wanted ? Math.max(0, size - wanted.last) : wanted.begin;
  const end = 'last' in wanted ? size : Math.min(size, wanted.end);
  const bytes = new Uint8Array(await blob.slice(begin, end).arrayBuffer());
  return { begin, bytes, size, tag: null };
}

/**
 * Fetches part of a file: the bytes from `begin` to before `end`, or the last of it (RFC 9110, 14.1.2). A server may
 * send all of it instead. Throws what `fetch` throws, and where the answer is no part of a file.
 */
export async function fetchPiece(url: string, wanted: Wanted, signal: AbortSignal): Promise<Piece> {
  const range = 'last' in wanted ? `-${wanted.last}` : `${wanted.begin}-${wanted.end - 1}`;
  // The browser's cache answers one request for an address at a time.
  const how = { cache: 'no-store', signal } as const;
  const reply = await fetch(url, { ...how, headers: { range: `bytes=${range}` } });
  if (!reply.ok) throw new Error(`the server answers ${reply.status} when asked for the file`);
  const bytes = new Uint8Array(await reply.arrayBuffer());
  const tag = reply.headers.get('etag');
  if (reply.status !== 206) return { begin: 0, bytes, size: bytes.length, tag };
  const told = CONTENT_RANGE.exec(reply.headers.get('content-range') ?? '');
  const [begin, last, size] = (told ?? []).slice(1).map(Number);
  if (!told || last - begin + 1 !== bytes.length || last >= size)
    throw new Error('the server has sent another part of the file than it says');
  return { begin, bytes, size, tag };
}
