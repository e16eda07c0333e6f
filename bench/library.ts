import { join } from 'node:path';
import type { Instance } from '../e2e/support/instance';
import { root } from './browser';
import { bringInAll, withPrepared } from './prepared';

/** Real manuals, out of documentation packages of Debian. */
export const manuals = [
  'octave-doc/octave.pdf',
  'gnuplot-doc/gnuplot.pdf',
  'sbcl-doc/sbcl.pdf',
].map((path) => join(root, '.data/documents', path));

export const DOCUMENTS = 100;
export const PAGES_EACH = 300;

/** Documents whose pages are those of the ones there are, shuffled: their texts with all that is known of them. */
export const multiply = `
  drop index source_texts_lexemes;
  select setseed(0.42);
  create temp table real as
    select row_number() over () as n, text, words, lexemes from source_texts where layer = 'text';
  create temp table made as
    select d, repeat(md5(d::text), 2) as digest, gen_random_uuid() as id from generate_series(1, ${DOCUMENTS}) d;
  create temp table sheets as
    select digest, id, i, 1 + floor(random() * (select count(*) from real))::int as n
    from made, generate_series(0, ${PAGES_EACH - 1}) i;
  insert into sources (digest, size) select digest, 1 from made;
  insert into documents (id, owner, title, original, working, repair)
    select id, 'local', 'Manual ' || d, digest, digest, 'none' from made;
  insert into file_owners (account, digest) select 'local', digest from made;
  insert into source_pages (source, source_index, width, height, has_marks)
    select digest, i, 612, 792, false from sheets;
  insert into pages (id, document_id, "order", source, source_index, sheet, width, height, rotation)
    select gen_random_uuid(), id, 'a' || lpad(i::text, 4, '0'), digest, i, p.sheet, 612, 792, 0
    from sheets s join source_pages p on p.source = s.digest and p.source_index = s.i;
  insert into source_texts (sheet, layer, text, words, lexemes)
    select p.sheet, 'text', text, words, lexemes
    from sheets s join real using (n) join source_pages p on p.source = s.digest and p.source_index = s.i;
  insert into indexing (source, pages, done, drawn)
    select digest, ${PAGES_EACH}, ${PAGES_EACH}, ${PAGES_EACH} from made;
  insert into entries (document_id, kind, item_id, text, lexemes)
    select id, 'title', id, 'Manual ' || d, to_tsvector('simple', 'manual ' || d) from made on conflict do nothing;
  update terms set pages = pages * ${DOCUMENTS * PAGES_EACH} / (select count(*) from real) + 1;
  create index source_texts_lexemes on source_texts using gin (lexemes) with (fastupdate = off);
  vacuum analyze;
`;

/** Runs something with a server that has 100 documents of 300 pages besides the manuals. */
export const withLibrary = <T>(work: (instance: Instance) => Promise<T>): Promise<T> =>
  withPrepared(
    'library',
    async (instance) => {
      await bringInAll(instance, manuals);
      instance.sql(multiply);
    },
    work,
  );
