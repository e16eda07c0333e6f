import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { documentSummarySchema, type StyletDocument } from '@stylet/core/api';
import { idsFor, newId } from '@stylet/core/document';
import { a4 } from '@stylet/core/paper';
import { bytesInMemory, joinBytes, notebookPages, paperPdf, takeIn } from '@stylet/core/pdf';
import { smallPdf } from '../../../core/src/pdf/testing/small-file';
import { accounts } from '../db/schema';
import { TestServer, realPdf } from '../testing/server';

/* Documents that begin somewhere else, before the server has heard of them. */

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()), 60_000);
afterAll(() => server.stop());

const now = '2026-12-01T08:00:00.000Z';
const digestOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** A file whose only annotation stands directly on its page (ISO 32000-1, 12.5.2 allows it). */
const tidied = (): Uint8Array =>
  smallPdf([
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 300 200] /Annots [<< /Type /Annot /Subtype /Square /Rect [20 20 90 80] /Contents (Rinse) >>] >>',
  ]);

/** What somebody who has the file and the id would have for a document, by the core alone. */
function readElsewhere(bytes: Uint8Array, id: string) {
  const taken = takeIn(bytesInMemory(bytes), { now, ids: idsFor(id), isMended: false });
  if (taken.outcome !== 'read') throw new Error(taken.outcome);
  return { ...taken.pdf, source: digestOf(joinBytes([bytes, taken.tail])) };
}

const idsIn = (list: readonly { readonly id: string }[]): string[] =>
  list.map(({ id }) => id).sort();

const bringIn = (bytes: Uint8Array, id: string, account?: string) =>
  server.upload(bytes, 'Begun.pdf', `/api/documents?id=${id}`, account);

test.each([
  ['a manual with an outline and links', () => readFileSync(realPdf('libmpfr-doc/mpfr.pdf'))],
  ['a file that has to be made such that it can be worked on', tidied],
])('%s is the same document where it begins and on the server', async (_, file) => {
  const [id, bytes] = [newId(), file()];
  const elsewhere = readElsewhere(bytes, id);
  const reply = await bringIn(bytes, id);
  expect(reply.statusCode).toBe(201);
  expect(documentSummarySchema.parse(reply.json()).id).toBe(id);
  const document = await server.document(id);
  expect(document.source).toBe(elsewhere.source);
  const fieldsOf = ({ pages }: Pick<StyletDocument, 'pages'>) =>
    pages.map((page) => [page.id, page.order, page.sourceIndex, page.width, page.height]);
  expect(fieldsOf(document)).toEqual(
    elsewhere.pages.map((page) => [page.id, page.order, page.index, page.width, page.height]),
  );
  expect(idsIn(document.landmarks)).toEqual(idsIn(elsewhere.landmarks));
  const annotations = await server.annotations(id);
  expect(annotations.length + document.landmarks.length).toBeGreaterThan(0);
  expect(idsIn(annotations)).toEqual(idsIn(elsewhere.annotations));
});

test('sent twice, also at the same time, it comes once', async () => {
  const [id, bytes] = [newId(), tidied()];
  const replies = await Promise.all([bringIn(bytes, id), bringIn(bytes, id)]);
  replies.push(await bringIn(bytes, id));
  expect(replies.map(({ statusCode }) => statusCode)).toEqual([201, 201, 201]);
  expect((await server.document(id)).pages).toHaveLength(1);
  expect(await server.annotations(id)).toHaveLength(1);
});

test('an id that another document has is refused, whoever has it', async () => {
  const id = newId();
  await bringIn(tidied(), id);
  const other = readFileSync(realPdf('libmpfr-doc/mpfr.pdf'));
  expect((await bringIn(other, id)).json()).toMatchObject({ code: 'document-exists', status: 409 });
  const account = newId();
  await server.services.database.insert(accounts).values({ id: account });
  expect((await bringIn(tidied(), id, account)).json()).toMatchObject({ code: 'document-exists' });
  expect((await bringIn(tidied(), 'mine')).statusCode).toBe(400);
});

test('a notebook has the pages that whoever began it has written on', async () => {
  const id = newId();
  const paper = { ruling: 'squared', ...a4() } as const;
  const payload = { id, title: 'Notes', paper, sheets: 3 };
  const make = () => server.app.inject({ method: 'POST', url: '/api/notebooks', payload });
  expect((await make()).statusCode).toBe(201);
  expect((await make()).statusCode).toBe(201);
  const elsewhere = readElsewhere(paperPdf(paper), newId());
  const { pages, source } = await server.document(id);
  expect(idsIn(pages)).toEqual(idsIn(notebookPages(id, elsewhere.pages[0], 3)));
  expect(source).toBe(elsewhere.source);
});
