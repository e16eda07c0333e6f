import { readFileSync } from 'node:fs';
import { storedTextsSchema, type StoredTexts } from '@stylet/core/api';
import { TEXTS_TOGETHER, wordsFromBase64 } from '@stylet/core/find';
import { TestServer, realPdf, tool } from '../testing/server';

jest.setTimeout(60_000);

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()));
afterAll(() => server.stop());

test('the texts of a manual come part by part, each word at its place, as pdftotext has them', async () => {
  const path = realPdf('libmpfr-doc/mpfr.pdf');
  const { id } = await server.bringIn(readFileSync(path));
  const { pages } = await server.document(id);
  const { source } = pages[0];
  const part = async (nth: number): Promise<[StoredTexts, string]> => {
    const reply = await server.app.inject(`/api/sources/${source}/texts/${nth}`);
    const cached = String(reply.headers['cache-control']);
    return [storedTextsSchema.parse(reply.json()), cached];
  };
  expect(await part(0)).toEqual([{ read: 0, texts: [] }, 'no-store']);
  await server.index();
  const [first, cached] = await part(0);
  expect(first.read).toBe(pages.length);
  expect(cached).toContain('immutable');
  const [second] = await part(1);
  const all = [...first.texts, ...second.texts].filter(({ layer }) => layer === 'text');
  expect(Math.max(...first.texts.map(({ page }) => page))).toBe(TEXTS_TOGETHER - 1);
  expect(all).toHaveLength(pages.length);

  // Which lines come first on a page is for each program to choose; what stands there is not, but for the parts of
  // formulas that one of them leaves out.
  const letters = (text: string): string[] => [...text.replace(/[^a-z]/gi, '')].sort();
  let equal = 0;
  const theirs = tool('pdftotext', path, '-').split('\f');
  for (const { page, text, words } of all) {
    const [ours, other] = [letters(text), letters(theirs[page])];
    expect(Math.abs(ours.length - other.length)).toBeLessThanOrEqual(0.01 * other.length);
    if (ours.join('') === other.join('')) equal++;
    const { starts, boxes } = wordsFromBase64(words);
    expect(boxes).toHaveLength(5 * starts.length);
    expect([...starts].every((start) => start === 0 || /[ \u00ad]/.test(text[start - 1]))).toBe(
      true,
    );
  }
  expect(equal / all.length).toBeGreaterThan(0.9);
});

test('a file that there is not has none', async () => {
  const reply = await server.app.inject(`/api/sources/${'0'.repeat(64)}/texts/0`);
  expect([reply.statusCode, reply.json<{ code: string }>().code]).toEqual([
    404,
    'source-not-found',
  ]);
});
