import {
  libraryPartSchema,
  documentSchema,
  documentSummarySchema,
  pictureFactsSchema,
  type PictureFacts,
  type ReadingReport,
  type StyletDocument,
} from '@stylet/core/api';
import { newId, type Effect } from '@stylet/core/document';
import { makeDeck, makeHandbook, makePaper } from './documents/index';
import { LOG } from './documents/log';
import {
  Notes,
  rangeOf,
  writeInHandbook,
  writeOnDeck,
  writeOnPaper,
  type FindWords,
  type PutIn,
} from './notes';
import { readText } from './reading/index';

const AUTHOR = 'Tidewater student';
const BATCH = 200;

interface DemoDocument {
  readonly title: string;
  readonly make: () => Promise<Uint8Array>;
  readonly annotate: (notes: Notes, find: FindWords, putIn: PutIn) => Promise<void>;
  /** So many of its pages have been read. */
  readonly pagesRead: number;
}

const documents: readonly DemoDocument[] = [
  { title: 'Dune migration (review)', make: makePaper, annotate: writeOnPaper, pagesRead: 4 },
  { title: 'Field handbook', make: makeHandbook, annotate: writeInHandbook, pagesRead: 58 },
  { title: 'Waves and tides', make: makeDeck, annotate: writeOnDeck, pagesRead: 27 },
];

/** Brings the demo documents into a running server, unless they are there. */
async function seed(address: string): Promise<void> {
  const isThere = async (title: string): Promise<boolean> => {
    const query = `title=${encodeURIComponent(title)}&limit=500`;
    const found = await fetchJson(`${address}/api/documents?${query}`);
    return libraryPartSchema.parse(found).documents.some((document) => document.title === title);
  };
  await seedTexts(address, isThere);
  for (const { title, make, annotate, pagesRead } of documents) {
    if (await isThere(title)) continue;
    const pdf = await make();
    const form = new FormData();
    form.append('file', new Blob([pdf.slice()], { type: 'application/pdf' }), `${title}.pdf`);
    const made = documentSummarySchema.parse(
      await fetchJson(`${address}/api/documents`, { method: 'POST', body: form }),
    );
    const document = documentSchema.parse(await fetchJson(`${address}/api/documents/${made.id}`));
    const notes = new Notes(document, AUTHOR, new Date().toISOString());
    const putIn: PutIn = (file, name) => putInto(address, file, name);
    await annotate(notes, (page, words) => find(pdf, page, words), putIn);
    await send(address, document, notes.effects);
    await read(address, document, pagesRead);
    console.log(
      `Brought in “${title}”: ${document.pageCount} pages, ${notes.effects.length} annotations`,
    );
  }
}

/** Text of which the server makes pages. */
const texts = [{ title: 'Log of the second day', text: LOG }] as const;

async function seedTexts(
  address: string,
  isThere: (title: string) => Promise<boolean>,
): Promise<void> {
  for (const { title, text } of texts) {
    if (await isThere(title)) continue;
    const form = new FormData();
    form.append('file', new Blob([text], { type: 'text/markdown' }), `${title}.md`);
    const { pageCount } = documentSummarySchema.parse(
      await fetchJson(`${address}/api/documents`, { method: 'POST', body: form }),
    );
    console.log(`Brought in “${title}”: ${pageCount} pages of text`);
  }
}

async function find(pdf: Uint8Array, page: number, words: string) {
  const [{ lines }] = await readText(pdf, [page]);
  const range = rangeOf(lines, words);
  if (!range) throw new Error(`page ${page} does not say “${words}”`);
  return range;
}

async function putInto(address: string, file: Uint8Array, name: string): Promise<PictureFacts> {
  const form = new FormData();
  form.append('file', new Blob([file.slice()]), name);
  const reply = await fetchJson(`${address}/api/pictures`, { method: 'POST', body: form });
  return pictureFactsSchema.parse(reply);
}

async function send(
  address: string,
  { id, revision }: StyletDocument,
  effects: readonly Effect[],
): Promise<void> {
  for (let i = 0; i < effects.length; i += BATCH) {
    const operations = effects.slice(i, i + BATCH).map((effect) => ({
      id: newId(),
      documentId: id,
      author: AUTHOR,
      at: new Date().toISOString(),
      baseRevision: revision,
      effect,
    }));
    await fetchJson(`${address}/api/documents/${id}/operations`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ operations }),
    });
  }
}

/** The first pages have been seen; one begins again at the first. */
async function read(address: string, { id, pages }: StyletDocument, count: number): Promise<void> {
  const report: ReadingReport = {
    place: { pageId: pages[0].id, share: 0 },
    seen: pages.slice(0, count).map((page) => page.id),
  };
  const reply = await fetch(`${address}/api/documents/${id}/reading`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(report),
  });
  if (!reply.ok) throw new Error(`What was read could not be kept: ${await reply.text()}`);
}

async function fetchJson(url: string, init?: RequestInit): Promise<unknown> {
  const reply = await fetch(url, init);
  if (!reply.ok) throw new Error(`${url} answered ${reply.status}: ${await reply.text()}`);
  return reply.json();
}

await seed(process.argv[2]);
