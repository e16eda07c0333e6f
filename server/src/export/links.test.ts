import { readFileSync } from 'node:fs';
import { isDeepStrictEqual } from 'node:util';
import { newId, type Link, type LinkTarget } from '@stylet/core/document';
import { TestServer, operation, realPdf, tool } from '../testing/server';
import { blankPdf } from '../testing/pictures';
import { faultsIn } from '../testing/standard-annotations';

const NOW = '2026-09-01T08:00:00.123Z';
const ADDRESS = 'https://tidewater.example/tide tables?station=b&month=9'.replace(' ', '%20');

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()), 60_000);
afterAll(() => server.stop());

const link = (pageId: string, target: LinkTarget, y: number): Link => ({
  kind: 'link',
  id: newId(),
  pageId,
  order: 'a1',
  opacity: 1,
  author: 'Reviewer',
  created: NOW,
  modified: NOW,
  quads: [[50, y, 150, y, 50, y + 20, 150, y + 20]],
  contents: 'see there',
  target,
});

async function linked(): Promise<{ id: string; links: Link[]; other: string }> {
  const other = (await server.bringIn(blankPdf(4), 'Tide tables.pdf')).id;
  const { id } = await server.bringIn(blankPdf(3), 'Notes.pdf');
  const { pages } = await server.document(id);
  const links = [
    link(pages[0].id, { place: { pageId: pages[2].id, x: 40, y: 100 } }, 30),
    link(pages[0].id, { address: ADDRESS }, 80),
    link(
      pages[1].id,
      { documentId: other, title: (await server.document(other)).title, pageIndex: 3 },
      30,
    ),
  ];
  const adding = links.map((annotation) => operation(id, { type: 'annotation.add', annotation }));
  const reply = await server.send(id, adding);
  if (reply.statusCode !== 200) throw new Error(reply.body);
  return { id, links, other };
}

type Entries = Record<string, unknown>;

/** The links of a file by their order on the pages, and the numbers of the objects that are pages. */
function read(file: string): { links: Entries[]; pages: string[] } {
  const { qpdf, pages } = JSON.parse(
    tool('qpdf', '--json', '--json-key=qpdf', '--json-key=pages', file),
  ) as {
    qpdf: [unknown, Record<string, { value?: Entries }>];
    pages: { object: string }[];
  };
  const found = Object.values(qpdf[1]).flatMap(({ value }) =>
    value?.['/Subtype'] === '/Link' ? [value] : [],
  );
  return { links: found, pages: pages.map(({ object }) => object) };
}

// ISO 32000-1, 12.3.2.2 (explicit destinations), 12.6.4.7 (URI actions), 12.6.4.3 (remote go-to).
test.each(['editable', 'flattened', 'none'])(
  'links are in the export “%s”, as the standard has them, and lead where they are meant to',
  async (mode) => {
    const { id } = await linked();
    const file = server.file(`${mode}.pdf`, await server.export(id, mode));
    expect(tool('qpdf', '--check', file)).toContain('No syntax or stream encoding errors');
    expect(faultsIn(file)).toEqual([]);
    const { links, pages } = read(file);
    expect(links).toHaveLength(3);
    const [toPlace, toAddress, toFile] = links;
    // The visible box begins at (10, 20) and is 300 high.
    expect(toPlace['/Dest']).toEqual([pages[2], '/XYZ', 50, 220, null]);
    expect(toPlace['/Rect']).toEqual([60, 270, 160, 290]);
    expect(toAddress['/A']).toMatchObject({ '/S': '/URI', '/URI': `u:${ADDRESS}` });
    expect(toFile['/A']).toMatchObject({
      '/S': '/GoToR',
      '/F': { '/UF': 'u:Tide tables.pdf' },
      '/D': [3, '/XYZ', null, null, null],
    });
    expect(tool('pdfinfo', '-url', file)).toContain(ADDRESS);
  },
);

test('links come back from an export and lead to the same page of the new document', async () => {
  const { id, links, other } = await linked();
  const bytes = await server.export(id, 'editable');
  const again = await server.bringIn(bytes, 'Again.pdf');
  const { pages } = await server.document(again.id);
  const found = (await server.annotations(again.id)) as Link[];
  const byId = new Map(found.map((annotation) => [annotation.id, annotation]));
  expect(found).toHaveLength(3);
  expect(byId.get(links[0].id)!.target).toEqual({
    place: { pageId: pages[2].id, x: 40, y: 100 },
  });
  expect(byId.get(links[1].id)!.target).toEqual({ address: ADDRESS });
  expect(byId.get(links[2].id)!.target).toMatchObject({ documentId: other, pageIndex: 3 });
  // Nothing was changed: nothing is added.
  expect((await server.export(again.id, 'editable')).equals(bytes)).toBe(true);

  const fields = {
    target: { address: 'mailto:tides@tidewater.example' },
    modified: NOW.replace('08', '09'),
  };
  await server.send(again.id, [
    operation(again.id, {
      type: 'annotation.change',
      pageId: pages[0].id,
      annotationId: links[0].id,
      fields,
    }),
    operation(again.id, {
      type: 'annotation.remove',
      pageId: pages[0].id,
      annotationId: links[1].id,
    }),
  ]);
  const file = server.file('changed.pdf', await server.export(again.id, 'editable'));
  // What was removed stands unused in the untouched part of the file.
  expect(faultsIn(file)).toEqual([expect.stringContaining('is not among the annotations')]);
  const urls = tool('pdfinfo', '-url', file);
  expect(urls).toContain('mailto:tides@tidewater.example');
  expect(urls).not.toContain(ADDRESS);
});

/** A link that a file came with, as it is kept once it was changed or removed. */
const taken = (pageId: string, object: number, target: LinkTarget): Link => ({
  ...link(pageId, target, 30),
  origin: { object, generation: 0, modified: '1970-01-01T00:00:00.000Z' },
});

interface LinkOf {
  readonly page: number;
  readonly object: number;
  readonly rect: unknown;
  readonly to: string;
}

/** Every link of a file as qpdf has it, page by page: its object, its area, and where it leads. */
function everyLink(file: string): LinkOf[] {
  const { qpdf, pages } = JSON.parse(
    tool('qpdf', '--json', '--json-key=qpdf', '--json-key=pages', file),
  ) as {
    qpdf: [unknown, Record<string, { value?: unknown }>];
    pages: { object: string }[];
  };
  const valueOf = (ref: unknown): unknown =>
    typeof ref === 'string' && / R$/.test(ref) ? qpdf[1][`obj:${ref}`]?.value : ref;
  return pages.flatMap(({ object }, page) => {
    const annots = (valueOf((valueOf(object) as Entries)['/Annots']) ?? []) as string[];
    return annots.flatMap((ref) => {
      const dict = valueOf(ref) as Entries;
      if (dict['/Subtype'] !== '/Link') return [];
      const to = JSON.stringify([dict['/Dest'], valueOf(dict['/A'])]);
      return [{ page, object: Number.parseInt(ref, 10), rect: dict['/Rect'], to }];
    });
  });
}

const books = [
  'sbcl-doc/sbcl.pdf',
  'gnuplot-doc/gnuplot.pdf',
  'octave-doc/octave.pdf',
  'asymptote-doc/asymptote.pdf',
  'libmpfr-doc/mpfr.pdf',
  'evolver-doc/manual270.pdf',
];

test.each(books)(
  'every link of %s leads where it led after one was changed, one removed, and one made',
  async (path) => {
    const bytes = readFileSync(realPdf(path));
    const was = everyLink(server.file('was.pdf', bytes));
    const internal = was.filter(({ to }) => !to.includes('/URI'));
    expect(internal.length).toBeGreaterThan(15);
    const { id } = await server.bringIn(bytes, 'Book.pdf');
    const { pages } = await server.document(id);
    const [changed, removed] = [internal[3], internal[10]];
    const elsewhere = { place: { pageId: pages[7].id, x: 0, y: 50 } };
    const annotations = [
      taken(pages[changed.page].id, changed.object, elsewhere),
      taken(pages[removed.page].id, removed.object, { nowhere: true }),
      link(pages[5].id, elsewhere, 60),
    ];
    const adding = annotations.map((annotation) =>
      operation(id, { type: 'annotation.add', annotation }),
    );
    expect((await server.send(id, adding)).statusCode).toBe(200);
    for (const mode of ['editable', 'flattened', 'none']) {
      const exported = await server.export(id, mode);
      const file = server.file(`${mode}.pdf`, exported);
      // All three are the same bytes before what is appended: streams of a thousand pages are decoded once.
      if (mode === 'flattened')
        expect(tool('qpdf', '--check', file)).toContain('No syntax or stream encoding errors');
      const now = new Map(everyLink(file).map((item) => [item.object, item]));
      const rest = was.filter((item) => item !== changed && item !== removed);
      const differing = rest.filter((item) => !isDeepStrictEqual(now.get(item.object), item));
      expect(differing).toEqual([]);
      expect(now.has(removed.object)).toBe(false);
      expect(now.size).toBe(was.length);
      // Links keep their areas; where they lead now is what mutool says of the page.
      const dest = tool('mutool', 'show', file, `${changed.object}`);
      expect(dest).toContain('/Dest');
      expect(dest).not.toMatch(/\/A\b/);
      const eighth = tool('mutool', 'show', file, 'pages').split('\n')[7];
      expect(dest).toContain(`${/= (\d+ 0 R)/.exec(eighth)![1]} /XYZ`);
    }
    const again = await server.bringIn(await server.export(id, 'editable'), 'Again.pdf');
    const back = (await server.annotations(again.id)) as Link[];
    expect(back.map(({ kind }) => kind)).toEqual(['link', 'link']);
    const eighth = (await server.document(again.id)).pages[7].id;
    for (const { target } of back)
      expect(target).toMatchObject({ place: { pageId: eighth, y: 50 } });
  },
  120_000,
);

test('only addresses that are safe to open are taken', async () => {
  const { id } = await server.bringIn(blankPdf(1), 'Notes.pdf');
  const [page] = (await server.document(id)).pages;
  for (const address of ['javascript:alert(1)', 'file:///etc/passwd', 'not an address']) {
    const annotation = link(page.id, { address }, 10);
    const reply = await server.send(id, [operation(id, { type: 'annotation.add', annotation })]);
    expect(reply.statusCode).toBe(400);
  }
});
