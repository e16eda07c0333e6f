import { createHash } from 'node:crypto';
import { idSchema } from './common-fields';
import { idsFor } from './ids';

/** RFC 9562, 5.5: the SHA-1 of namespace and name, cut off, with version and variant put in. */
function named(namespace: string, name: string): string {
  const bytes = createHash('sha1')
    .update(Buffer.from(namespace.replaceAll('-', ''), 'hex'))
    .update(name)
    .digest()
    .subarray(0, 16);
  bytes[6] = (bytes[6] & 0x0f) | 0x50;
  bytes[8] = (bytes[8] & 0x3f) | 0x80;
  return bytes.toString('hex').replace(/^(.{8})(.{4})(.{4})(.{4})/, '$1-$2-$3-$4-');
}

test('ids of what is in a document are UUIDs of version 5 in its namespace', () => {
  // RFC 9562, A.4: “www.example.com” in the namespace of domain names.
  expect(named('6ba7b810-9dad-11d1-80b4-00c04fd430c8', 'www.example.com')).toBe(
    '2ed6657d-e927-568b-95e1-2665a8aea6a2',
  );
  const documentId = '01975f3e-8c1d-7a52-9be0-0d3f5c4a7b61';
  const ids = idsFor(documentId);
  const given = [ids('page'), ids('landmark'), ids('page'), ids('annotation'), ids('group')];
  expect(given).toEqual(
    ['page 0', 'landmark 0', 'page 1', 'annotation 0', 'group 0'].map((name) =>
      named(documentId, name),
    ),
  );
  for (const id of given) expect(idSchema.safeParse(id).success).toBe(true);
});
