import { deflateSync } from 'node:zlib';

/** Compressed as somebody waits for it, and as it is written once and kept. */
export const quickly = (data: Uint8Array): Uint8Array => deflateSync(data, { level: 3 });
export const thoroughly = (data: Uint8Array): Uint8Array => deflateSync(data, { level: 9 });
