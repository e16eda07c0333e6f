import { LIMITS } from '@stylet/core/pdf';
import { builtPdf, type BuiltObject } from '../../core/src/pdf/testing/built-file';
import { insist, type Check } from '../check';
import { healthDuring } from '../under-fault';

const MINUTE = 60_000;
const LONGEST_HEALTH = 200;

function fileOf(pages: number, annotations: number, entries: number): Uint8Array {
  const objects = new Map<number, BuiltObject>();
  const [first, firstMark, firstEntry] = [10, 10 + pages, 10 + pages + annotations];
  const perPage = Math.ceil(annotations / pages);
  const refs = (from: number, count: number): string =>
    Array.from({ length: count }, (_, i) => `${from + i} 0 R`).join(' ');
  const outline = entries > 0 ? `/Outlines 3 0 R` : '';
  objects.set(1, `<< /Type /Catalog /Pages 2 0 R ${outline} >>`);
  objects.set(
    2,
    `<< /Type /Pages /Count ${pages} /MediaBox [0 0 300 400] /Kids [${refs(first, pages)}] >>`,
  );
  if (entries > 0) objects.set(3, `<< /First ${firstEntry} 0 R >>`);
  for (let i = 0; i < pages; i++) {
    const count = Math.max(0, Math.min(perPage, annotations - i * perPage));
    const annots = count > 0 ? `/Annots [${refs(firstMark + i * perPage, count)}]` : '';
    objects.set(first + i, `<< /Type /Page /Parent 2 0 R ${annots} >>`);
  }
  for (let i = 0; i < annotations; i++)
    objects.set(
      firstMark + i,
      `<< /Type /Annot /Subtype /Square /Rect [${i % 200} 20 ${(i % 200) + 40} 60] /C [1 0 0] /Contents (Number ${i}) >>`,
    );
  for (let i = 0; i < entries; i++) {
    const following = i + 1 < entries ? `/Next ${firstEntry + i + 1} 0 R` : '';
    objects.set(firstEntry + i, `<< /Title (Entry ${i}) /Dest [${first} 0 R /Fit] ${following} >>`);
  }
  const packed = new Set([...objects.keys()].filter((number) => number >= first));
  return builtPdf(objects, { form: 'stream', packed, trailer: '/Root 1 0 R' });
}

/** Much of everything is taken within a minute, too much refused with what is allowed; others are answered meanwhile. */
export const largeFiles: Check = {
  name: 'fifty thousand annotations come in within a minute, and health is told within 200 ms',
  async run(server, _seed, tally) {
    const cases: [string, Uint8Array, string | undefined][] = [
      ['50,000 annotations', fileOf(500, 50_000, 0), undefined],
      ['10,000 pages and 20,000 entries', fileOf(10_000, 0, 20_000), undefined],
      ['100,000 pages', fileOf(100_000, 0, 0), `${LIMITS.pages.toLocaleString('en')} pages`],
      ['100,000 entries', fileOf(1, 0, 100_000), `${LIMITS.outline.toLocaleString('en')} entries`],
    ];
    for (const [name, bytes, allowed] of cases) {
      const begun = Date.now();
      let reply: Response | undefined;
      let body: { code?: string; detail?: string } = {};
      const health = await healthDuring(server, async () => {
        reply = await server.upload(bytes);
        body = (await reply.json()) as typeof body;
      });
      const took = Date.now() - begun;
      console.log(`  ${name}: ${reply!.status} after ${took} ms, health within ${health} ms`);
      tally.longestAnswer = Math.max(tally.longestAnswer, took);
      if (allowed)
        insist(
          body.code === 'pdf-too-much' && body.detail!.includes(allowed),
          `${name}: ${body.code} ${body.detail}`,
        );
      else insist(reply!.status === 201, `${name}: ${reply!.status} ${body.detail}`);
      insist(took < MINUTE * tally.leniency, `${name} took ${took} ms`);
      insist(health < LONGEST_HEALTH * tally.leniency, `${name}: health took ${health} ms`);
    }
    tally.peakMemory = Math.max(tally.peakMemory, server.peakMemory);
  },
};
