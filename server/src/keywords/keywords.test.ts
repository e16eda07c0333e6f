import type { HungKeyword } from '@stylet/core/api';
import { newId, type Link } from '@stylet/core/document';
import { blankPdf } from '../testing/pictures';
import { TestServer, operation } from '../testing/server';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()), 60_000);
afterAll(() => server.stop());

const created = '2026-09-01T08:00:00.000Z';
const keywords = async (): Promise<HungKeyword[]> =>
  (await server.app.inject('/api/keywords')).json<{ keywords: HungKeyword[] }>().keywords;

test('keywords of all documents are listed with their pages and their faces', async () => {
  expect(await keywords()).toEqual([]);
  const { id } = await server.bringIn(blankPdf(2), 'Notes.pdf');
  const other = (await server.bringIn(blankPdf(2), 'Almanac.pdf')).id;
  const { pages } = await server.document(id);
  const theirs = (await server.document(other)).pages;
  const face: Link = {
    kind: 'link',
    id: newId(),
    pageId: pages[1].id,
    order: 'a1',
    opacity: 1,
    author: '',
    created,
    modified: created,
    quads: [[0, 0, 10, 0, 0, 5, 10, 5]],
    contents: '',
    target: { address: 'https://tidewater.example' },
  };
  const hang = (on: string, pageId: string, word: string, annotationIds?: string[]) =>
    operation(on, {
      type: 'landmark.add',
      landmark: {
        kind: 'keyword',
        id: newId(),
        place: { pageId, y: 40 },
        word,
        created,
        ...(annotationIds ? { annotationIds } : {}),
      },
    });
  await server.send(id, [
    operation(id, { type: 'annotation.add', annotation: face }),
    hang(id, pages[1].id, '', [face.id, newId()]),
  ]);
  await server.send(other, [hang(other, theirs[0].id, 'swash')]);
  expect(await keywords()).toEqual([
    expect.objectContaining({
      word: 'swash',
      documentId: other,
      title: 'Almanac',
      place: { pageId: theirs[0].id, y: 40 },
      label: '1',
      face: [],
    }),
    expect.objectContaining({ word: '', documentId: id, title: 'Notes', face: [face] }),
  ]);
});
