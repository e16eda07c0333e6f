import { newId, type Link, type LinkTarget } from '@stylet/core/document';
import { TestServer, operation, tool } from '../testing/server';
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

test('only addresses that are safe to open are taken', async () => {
  const { id } = await server.bringIn(blankPdf(1), 'Notes.pdf');
  const [page] = (await server.document(id)).pages;
  for (const address of ['javascript:alert(1)', 'file:///etc/passwd', 'not an address']) {
    const annotation = link(page.id, { address }, 10);
    const reply = await server.send(id, [operation(id, { type: 'annotation.add', annotation })]);
    expect(reply.statusCode).toBe(400);
  }
});
