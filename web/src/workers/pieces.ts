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

/**
 * Fetches part of a file: the bytes from `begin` to before `end`, or the last of it (RFC 9110, 14.1.2). A server may
 * send all of it instead. Throws what `fetch` throws, and where the answer is no part of a file.
 */
export async function fetchPiece(
  url: string,
  wanted: { begin: number; end: number } | { last: number },
  signal: AbortSignal,
): Promise<Piece> {
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
