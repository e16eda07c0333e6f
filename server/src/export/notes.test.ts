import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  newId,
  threadsOn,
  wordsOf,
  type Annotation,
  type AnnotationFields,
  type Note,
  type Reply,
} from '@stylet/core/document';
import { bodyOf, usualLook, type Paragraph } from '@stylet/core/typed';
import { TestServer, highlight, operation, realPdf, root, tool } from '../testing/server';
import { faultsIn } from '../testing/standard-annotations';
import { viewers } from '../testing/viewers';

let server: TestServer;
let documentId: string;
let pageId: string;
const outsiders = join(root, 'server/src/testing/outsiders');
const card = readFileSync(realPdf('asymptote-doc/asyRefCard.pdf'));

beforeAll(async () => (server = await TestServer.start()));
afterAll(() => server.stop());
beforeEach(async () => {
  documentId = (await server.bringIn(card, 'Card.pdf')).id;
  pageId = (await server.document(documentId)).pages[0].id;
});

const NOW = '2026-09-01T08:00:00.000Z';
const placed = { opacity: 1, created: NOW, modified: NOW };
const paragraphs = (words: string): Paragraph[] => bodyOf(words, usualLook).paragraphs;
const noteOf = (words: string, more: Partial<Note> = {}): Note => ({
  ...placed,
  id: newId(),
  pageId,
  order: 'a1',
  author: 'Nerissa',
  kind: 'note',
  color: '#bde8b2',
  at: { x: 120, y: 90 },
  paragraphs: paragraphs(words),
  ...more,
});
const replyTo = (to: Annotation, words: string, more: Partial<Reply> = {}): Reply => ({
  ...placed,
  id: newId(),
  pageId,
  order: 'a2',
  author: 'Oswin',
  kind: 'reply',
  to: to.id,
  paragraphs: paragraphs(words),
  ...more,
});

async function add(...annotations: Annotation[]): Promise<void> {
  const reply = await server.send(
    documentId,
    annotations.map((annotation) => operation(documentId, { type: 'annotation.add', annotation })),
  );
  expect(reply.statusCode).toBe(200);
}

async function exported(mode = 'editable', more = ''): Promise<string> {
  const file = server.file('notes.pdf', await server.export(documentId, mode, more));
  expect(tool('qpdf', '--check', file)).toContain('No syntax or stream encoding errors');
  expect(faultsIn(file)).toEqual([]);
  return file;
}

interface Said {
  readonly id: string;
  readonly subtype: string;
  readonly words: string;
  readonly author: string;
  readonly answers: string | null;
  readonly how: string | null;
  readonly state: string | null;
  readonly model: string | null;
  readonly window: string | null;
}
const byPdfJs = (file: string): Said[] =>
  JSON.parse(tool('node', join(outsiders, 'pdfjs-notes.mjs'), file, '1')) as Said[];

async function broughtBack(file: string): Promise<{ id: string; annotations: Annotation[] }> {
  const { id } = await server.bringIn(readFileSync(file), 'Back.pdf');
  return { id, annotations: await server.annotations(id) };
}

/** Without what depends on where they are. */
const bare = ({ pageId: _page, order: _order, origin: _origin, ...rest }: Annotation): object =>
  rest;

test('notes, replies and states are there in other programs, and come back as they were', async () => {
  const mark = highlight(pageId, [[60, 200, 260, 200, 60, 216, 260, 216]], 'longshore drift');
  const note = noteOf('Which gauge — the old one?\nSee § 4.');
  const first = replyTo(note, 'The northern one.');
  const second = replyTo(first, 'Thank you.', { author: 'Nerissa' });
  const state = replyTo(note, 'Accepted', { state: 'accepted' });
  const marked = replyTo(mark, 'Marked', { state: 'marked' });
  const onMark = replyTo(mark, 'A word for it in the margin?');
  const all = [mark, note, first, second, state, marked, onMark];
  await add(...all);
  const file = await exported();

  const said = byPdfJs(file);
  const of = (words: string): Said => said.find((one) => one.words === words)!;
  const [root] = said.filter(({ subtype, answers }) => subtype === 'Text' && !answers);
  expect(root).toMatchObject({ words: 'Which gauge — the old one?\nSee § 4.', author: 'Nerissa' });
  expect(root.window).not.toBeNull();
  expect(of('The northern one.')).toMatchObject({ author: 'Oswin', answers: root.id, how: 'R' });
  expect(of('Thank you.').answers).toBe(of('The northern one.').id);
  expect(of('Accepted')).toMatchObject({ state: 'Accepted', model: 'Review', answers: root.id });
  expect(of('A word for it in the margin?').answers).toBe(
    said.find(({ subtype }) => subtype === 'Highlight')!.id,
  );
  expect(of('Marked')).toMatchObject({ state: 'Marked', model: 'Marked' });

  const byMupdf = JSON.parse(
    tool('mutool', 'run', join(outsiders, 'mutool-notes.js'), file, '1'),
  ) as { type: string; words: string; author: string }[];
  for (const one of [note, first, second, onMark])
    expect(byMupdf).toContainEqual({ type: 'Text', words: wordsOf(one), author: one.author });

  const back = await broughtBack(file);
  expect(back.annotations.map(bare)).toEqual(expect.arrayContaining(all.map(bare)));
  expect(back.annotations).toHaveLength(all.length);
  // What nobody touches stays as it is.
  expect(await server.export(back.id, 'editable')).toEqual(readFileSync(file));
});

test('the mark of a note is drawn where it is, and replies draw nothing', async () => {
  const note = noteOf('Here', { color: '#2f4fb5' });
  await add(note, replyTo(note, 'Seen'), replyTo(note, 'Completed', { state: 'completed' }));
  const file = await exported();
  const before = server.file('before.pdf', card);
  for (const [name, draw] of Object.entries(viewers)) {
    const [was, is] = [before, file].map((path) => draw(path, 1, 2));
    const changed = { x0: Infinity, y0: Infinity, x1: 0, y1: 0 };
    for (let i = 0; i < is.bytes.length; i += 3) {
      if (is.bytes.subarray(i, i + 3).every((value, k) => value === was.bytes[i + k])) continue;
      const [x, y] = [(i / 3) % is.width, Math.floor(i / 3 / is.width)].map((n) => n / 2);
      changed.x0 = Math.min(changed.x0, x);
      changed.y0 = Math.min(changed.y0, y);
      changed.x1 = Math.max(changed.x1, x);
      changed.y1 = Math.max(changed.y1, y);
    }
    const { x, y } = note.at;
    expect([name, changed.x0 >= x - 9, changed.x1 <= x + 9]).toEqual([name, true, true]);
    expect([name, changed.y0 >= y - 9, changed.y1 <= y + 9]).toEqual([name, true, true]);
    expect([name, changed.x1 - changed.x0 > 13]).toEqual([name, true]);
  }
});

describe('notes that pdf-lib wrote', () => {
  let file: string;
  let id: string;
  let annotations: Annotation[];
  beforeEach(async () => {
    file = join(server.folder, 'theirs.pdf');
    tool('node', join(outsiders, 'pdf-lib-notes.mjs'), server.file('card.pdf', card), file);
    ({ id, annotations } = await broughtBack(file));
  });
  const threads = () => threadsOn(Object.fromEntries(annotations.map((one) => [one.id, one])));
  const change = (annotation: Annotation, fields: AnnotationFields) =>
    server.send(id, [
      operation(id, {
        type: 'annotation.change',
        pageId: annotation.pageId,
        annotationId: annotation.id,
        fields: { ...fields, modified: '2026-10-01T08:00:00.000Z' },
      }),
    ]);
  const objectOf = (path: string, { origin }: Annotation): string =>
    tool('qpdf', `--show-object=${origin!.object}`, path);

  test('are threads here, with their replies and states', () => {
    const [note, mark] = ['note', 'foreign'].map((kind) =>
      threads().find(({ root }) => root.kind === kind)!,
    );
    expect(note.root).toMatchObject({ author: 'Nerissa', color: '#80ff80', kind: 'note' });
    expect(wordsOf(note.root)).toBe('Which gauge?');
    expect(note.replies.map((one) => [one.author, wordsOf(one), one.state])).toEqual([
      ['Oswin', 'The northern one\nof 2019', undefined],
      ['Nerissa', '', 'accepted'],
    ]);
    expect(note.state?.state).toBe('accepted');
    expect([mark.root.author, wordsOf(mark.root)]).toEqual(['Oswin', 'Check this figure']);
  });

  test('stay byte for byte as they are when somebody answers them here', async () => {
    const [note, mark] = ['note', 'foreign'].map((kind) =>
      annotations.find((a) => a.kind === kind)!,
    );
    pageId = note.pageId;
    documentId = id;
    await add(replyTo(note, 'Mended.'), replyTo(mark, 'Checked.'));
    const after = await exported();
    expect(readFileSync(after).subarray(0, readFileSync(file).length)).toEqual(readFileSync(file));
    for (const annotation of annotations)
      expect(objectOf(after, annotation)).toBe(objectOf(file, annotation));
    const said = byPdfJs(after);
    for (const [words, to] of [
      ['Mended.', note],
      ['Checked.', mark],
    ] as const)
      expect(said.find((one) => one.words === words)!.answers).toBe(`${to.origin!.object}R`);
  });

  test('become ours in form where somebody changes them, and keep what is not known here', async () => {
    const note = annotations.find((a): a is Note => a.kind === 'note')!;
    documentId = id;
    await change(note, { paragraphs: paragraphs('Which of the gauges?'), at: { x: 50, y: 60 } });
    const after = await exported();
    const object = objectOf(after, note);
    expect(object).toContain('/Vendor (kept)');
    expect(object).toMatch(/\/Popup \d+ 0 R/);
    const back = (await broughtBack(after)).annotations;
    expect(back).toHaveLength(annotations.length);
    const changed = back.find((a): a is Note => a.kind === 'note')!;
    expect(wordsOf(changed)).toBe('Which of the gauges?');
    expect(changed).toMatchObject({ at: { x: 50, y: 60 }, color: '#80ff80', author: 'Nerissa' });
    expect(back.flatMap((a) => (a.kind === 'reply' ? wordsOf(a) : []))).toContain(
      'The northern one\nof 2019',
    );
  });

  test('go with their windows and their replies when they are removed', async () => {
    const note = annotations.find((a) => a.kind === 'note')!;
    documentId = id;
    await server.send(id, [
      operation(id, { type: 'annotation.remove', pageId: note.pageId, annotationId: note.id }),
    ]);
    expect(byPdfJs(await exported()).map(({ subtype }) => subtype)).toEqual(['Highlight']);
  });
});

test('what another program changes of a note counts: its words, its place, its colour', async () => {
  const note = noteOf('Which gauge?');
  await add(note, replyTo(note, 'The northern one.'));
  const file = await exported();
  const changed = join(server.folder, 'changed.pdf');
  tool('mutool', 'run', join(outsiders, 'mutool.js'), file, changed, 'contents');
  const back = (await broughtBack(changed)).annotations;
  expect(back.map((one) => [one.kind, wordsOf(one)])).toEqual([
    ['note', 'A remark'],
    ['reply', 'A remark'],
  ]);
  const colored = join(server.folder, 'colored.pdf');
  tool('node', join(outsiders, 'pdf-lib.mjs'), file, colored, 'color', 'dated');
  expect((await broughtBack(colored)).annotations[0]).toMatchObject({
    kind: 'note',
    id: note.id,
    color: '#ff0000',
    at: note.at,
  });
});

test('drawn into the page, notes stay notes by choice, with what they are about', async () => {
  const mark = highlight(pageId, [[60, 200, 260, 200, 60, 216, 260, 216]], 'longshore drift');
  const note = noteOf('Which gauge?');
  await add(mark, note, replyTo(note, 'The northern one.'), replyTo(mark, 'A better word?'));
  const kept = byPdfJs(await exported('flattened', '&notes=true'));
  expect(kept.map(({ subtype, words }) => [subtype, words])).toEqual(
    expect.arrayContaining([
      ['Text', 'Which gauge?'],
      ['Text', 'The northern one.'],
      ['Text', 'longshore drift'],
      ['Text', 'A better word?'],
    ]),
  );
  const about = kept.find(({ words }) => words === 'longshore drift')!;
  expect(kept.find(({ words }) => words === 'A better word?')!.answers).toBe(about.id);
});

test('a copied page has notes and replies of its own', async () => {
  const note = noteOf('Which gauge?');
  await add(note, replyTo(note, 'The northern one.'));
  const { pages } = await server.document(documentId);
  const copy = { note: newId(), reply: newId(), page: newId() };
  const { annotations: _annotations, ...page } = { annotations: 0, ...pages[0] };
  await server.send(
    documentId,
    [
      { type: 'page.add' as const, page: { ...page, id: copy.page, order: 'z9' } },
      {
        type: 'annotation.add' as const,
        annotation: { ...note, id: copy.note, pageId: copy.page },
      },
      {
        type: 'annotation.add' as const,
        annotation: { ...replyTo({ ...note, id: copy.note }, 'The other one.'), pageId: copy.page },
      },
    ].map((effect) => operation(documentId, effect)),
  );
  const file = await exported();
  const on = tool('node', join(outsiders, 'pdfjs-notes.mjs'), file, String(pages.length + 1));
  const said = JSON.parse(on) as Said[];
  expect(said.map(({ words }) => words)).toEqual(
    expect.arrayContaining(['Which gauge?', 'The other one.']),
  );
  expect(said.find(({ words }) => words === 'The other one.')!.answers).toBe(
    said.find(({ words }) => words === 'Which gauge?')!.id,
  );
});
