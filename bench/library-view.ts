import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { Instance } from '../e2e/support/instance';
import { pairedRatio, timed, type Benchmark } from './benchmark';
import { launch, root } from './browser';
import { bringInAll } from './prepared';

const card = join(root, '.data/documents/debian-refcard/refcard-en-a4.pdf');
const DOCUMENTS = 2000;
const PAGES_EACH = 10;
const ANNOTATIONS_EACH = 150;

/** Documents of ten pages, all of one file. */
const documents = `
  create temp table own as select working as digest from documents limit 1;
  create temp table made as select d, gen_random_uuid() as id from generate_series(1, ${DOCUMENTS}) d;
  insert into documents (id, owner, title, original, working, repair, modified)
    select id, 'local', 'Week ' || d, digest, digest, 'none', now() - d * interval '1 minute' from made, own;
  insert into pages (id, document_id, "order", source, source_index, sheet, width, height, rotation)
    select gen_random_uuid(), made.id, 'a' || lpad(i::text, 4, '0'), own.digest, 0, p.sheet, 612, 792, 0
    from made, own, generate_series(1, ${PAGES_EACH}) i, source_pages p
    where p.source = own.digest and p.source_index = 0;
`;
const annotations = `
  insert into annotations (document_id, id, page_id, fields)
    select p.document_id, gen_random_uuid(), p.id, jsonb_build_object('kind', 'ink', 'order', 'a1')
    from pages p join documents d on d.id = p.document_id and d.title like 'Week %',
    generate_series(1, ${ANNOTATIONS_EACH / PAGES_EACH});
`;

async function withDocuments(name: string, more = ''): Promise<Instance> {
  const instance = await Instance.create(name);
  await instance.start();
  await bringInAll(instance, [card], 'Card.pdf');
  instance.sql(documents + more);
  instance.sql('vacuum analyze');
  return instance;
}

/** From the address to the covers that are in view. */
async function firstView(page: Page, url: string): Promise<number> {
  await page.bringToFront();
  await page.goto('about:blank');
  return timed(async () => {
    await page.goto(url);
    await page.locator('stylet-document-card').nth(3).waitFor();
  });
}

export const libraryView: Benchmark = {
  name: 'library-2000',
  about: `the first view of ${DOCUMENTS} documents with ${DOCUMENTS * ANNOTATIONS_EACH} annotations, against the same with none`,
  run: async () => {
    const full = await withDocuments('bench', annotations);
    const bare = await withDocuments('bench_bare');
    const browser = await launch();
    try {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
      const page = await context.newPage();
      const times: number[] = [];
      const value = await pairedRatio(
        async () => {
          const time = await firstView(page, full.url);
          times.push(time);
          return time;
        },
        () => firstView(page, bare.url),
        9,
      );
      const note = `${Math.round(Math.min(...times))} ms at best`;
      return { kind: 'ratio', value, baseline: 'none', goal: 1.2, note };
    } finally {
      await browser.close();
      await full.remove();
      await bare.remove();
    }
  },
};
