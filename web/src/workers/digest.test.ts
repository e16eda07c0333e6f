import { createHash, webcrypto } from 'node:crypto';
import { digestOf } from './digest';

const withCrypto = async <T>(subtle: unknown, work: () => Promise<T>): Promise<T> => {
  const before = Object.getOwnPropertyDescriptor(globalThis, 'crypto')!;
  Object.defineProperty(globalThis, 'crypto', { value: { subtle }, configurable: true });
  try {
    return await work();
  } finally {
    Object.defineProperty(globalThis, 'crypto', before);
  }
};

// FIPS 180-4's example for one block, as NIST publishes it (SHA256.pdf, “abc”).
const ABC = 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad';

test.each([
  ['where the browser has digests', webcrypto.subtle],
  ['over plain HTTP, where it has none', undefined],
])('a digest is SHA-256, %s', async (_, subtle) => {
  await withCrypto(subtle, async () => {
    expect(await digestOf(Uint8Array.from([97, 98, 99]))).toBe(ABC);
    const long = Uint8Array.from({ length: 100_000 }, (_value, i) => i % 251);
    const expected = createHash('sha256').update(long).digest('hex');
    expect(await digestOf(long)).toBe(expected);
  });
});
