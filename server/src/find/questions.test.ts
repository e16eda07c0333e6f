import { readFileSync } from 'node:fs';
import { findResultSchema } from '@stylet/core/api';
import { madePdf } from '@stylet/demo/testing';
import { TestServer } from '../testing/server';

const deck = 'Waves and tides';
const handbook = 'Field handbook';
const paper = 'Dune migration';

/** What somebody who knows the field course would type, and the page meant, counted from 1. */
const questions: readonly [string, string, number][] = [
  ['what a wave carries', deck, 4],
  ['linear theory', deck, 5],
  ['dispersion relation', deck, 6],
  ['dispersion table', deck, 7],
  ['wind fetch duration', deck, 8],
  ['swell outlives storm', deck, 9],
  ['wave groups', deck, 10],
  ['group speed', deck, 11],
  ['energy power', deck, 12],
  ['reading wave record', deck, 13],
  ['swell of the night', deck, 14],
  ['shoaling', deck, 16],
  ['refraction headland', deck, 17],
  ['diffraction mole', deck, 18],
  ['bottom friction', deck, 19],
  ['depth of closure', deck, 20],
  ['set-down set-up', deck, 21],
  ['transect in numbers', deck, 22],
  ['headland sketch', deck, 23],
  ['kinds of breaker', deck, 25],
  ['surf similarity', deck, 26],
  ['breaker index', deck, 27],
  ['surf zone', deck, 28],
  ['longshore drift', deck, 30],
  ['rip currents', deck, 31],
  ['swash backwash', deck, 32],
  ['bars troughs', deck, 33],
  ['count breakers', deck, 34],
  ['tide as a long wave', deck, 36],
  ['spring neap', deck, 37],
  ['tide table', deck, 38],
  ['currents in the inlet', deck, 39],
  ['tidal prism', deck, 40],
  ['ebb delta', deck, 41],
  ['storm surge', deck, 42],
  ['levels datums', deck, 43],
  ['high water outer bar', deck, 44],
  ['what to carry', deck, 46],
  ['safety flats', deck, 47],
  ['week ahead', deck, 48],
  ['into shallow water', deck, 15],
  ['before the tide', handbook, 15],
  ['surveying the beach', handbook, 45],
  ['water levels', handbook, 74],
  ['study site', paper, 2],
  ['wind and fetch', paper, 5],
  ['grain size', paper, 7],
  ['migration rates', paper, 8],
  ['discussion', paper, 10],
  ['conclusions', paper, 11],
];

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
  await server.bringIn(readFileSync(madePdf('makeDeck')), `${deck}.pdf`);
  await server.bringIn(readFileSync(madePdf('makeHandbook')), `${handbook}.pdf`);
  await server.bringIn(readFileSync(madePdf('makePaper')), `${paper}.pdf`);
  await server.index();
}, 120_000);
afterAll(() => server.stop());

test('fifty questions are answered with the page that was meant, first', async () => {
  expect(questions).toHaveLength(50);
  const answers: (readonly [string, string, number])[] = [];
  for (const [typed] of questions) {
    const reply = await server.app.inject(`/api/find?typed=${encodeURIComponent(typed)}`);
    const { documents } = findResultSchema.parse(reply.json());
    const hit = documents[0]?.hits.find(({ page }) => page !== null);
    answers.push([typed, documents[0]?.title ?? '', (hit?.page?.index ?? -1) + 1]);
  }
  expect(answers).toEqual(questions);
}, 60_000);
