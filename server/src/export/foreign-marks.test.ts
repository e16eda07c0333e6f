import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  asOwn,
  newId,
  transformedFields,
  type Annotation,
  type Foreign,
} from '@stylet/core/document';
import { TestServer, operation, realPdf, root, stroke, tool } from '../testing/server';
import { faultsIn } from '../testing/standard-annotations';

let server: TestServer;
const outsiders = join(root, 'server/src/testing/outsiders');
const card = readFileSync(realPdf('asymptote-doc/asyRefCard.pdf'));
beforeAll(async () => (server = await TestServer.start()));
afterAll(() => server.stop());

const LATER = '2026-11-01T08:00:00.000Z';
const writers = {
  'pdf-lib': (from: string, to: string) =>
    tool('node', join(outsiders, 'pdf-lib-marks.mjs'), from, to),
  mutool: (from: string, to: string) =>
    tool('mutool', 'run', join(outsiders, 'mutool-marks.js'), from, to),
};
/** What the kinds of another program become here, as far as there is something like them. */
const BECOMES: Readonly<Record<string, Annotation['kind']>> = {
  Ink: 'ink',
  Line: 'shape',
  Square: 'shape',
  Circle: 'shape',
  Polygon: 'shape',
  PolyLine: 'ink',
  Highlight: 'highlight',
  Underline: 'underline',
  StrikeOut: 'strikeout',
  FreeText: 'textBox',
};

const objectOf = (path: string, { origin }: Annotation): string =>
  tool('qpdf', `--show-object=${origin!.object}`, path);
const subtypeIn = (object: string): string => /\/Subtype \/(\w+)/.exec(object)![1];

describe.each(Object.entries(writers))('%s', (program, write) => {
  let file: string;
  let id: string;
  let marks: Foreign[];
  beforeAll(async () => {
    file = join(server.folder, `marks of ${program}.pdf`);
    write(server.file('card.pdf', card), file);
    ({ id } = await server.bringIn(readFileSync(file), 'Marks.pdf'));
    marks = (await server.annotations(id)).filter((one): one is Foreign => one.kind === 'foreign');
  });
  const exported = async (): Promise<string> => {
    const path = server.file(`after ${program}.pdf`, await server.export(id, 'editable'));
    expect(tool('qpdf', '--check', path)).toContain('No syntax or stream encoding errors');
    expect(faultsIn(path)).toEqual([]);
    return path;
  };
  const perform = (...annotations: Annotation[]) =>
    server.send(
      id,
      annotations.map((annotation) => operation(id, { type: 'annotation.add', annotation })),
    );

  test('marks of each kind come in with their words, and stay byte for byte when others are made', async () => {
    expect(marks.length).toBeGreaterThanOrEqual(12);
    for (const { subtype, contents, author } of marks)
      expect([contents, author]).toEqual([`A ${subtype}`, 'Nerissa']);
    await perform(
      stroke(marks[0].pageId, [
        [50, 50],
        [90, 90],
      ]),
    );
    const after = await exported();
    expect(readFileSync(after).subarray(0, readFileSync(file).length)).toEqual(readFileSync(file));
    for (const mark of marks) expect(objectOf(after, mark)).toBe(objectOf(file, mark));
  });

  test('made ours they are what they were, changed, with whatever is not known here', async () => {
    const changed = marks.flatMap((mark) => {
      const own = asOwn(mark, LATER, newId);
      expect([mark.subtype, own?.[0].kind]).toEqual([mark.subtype, BECOMES[mark.subtype]]);
      return (own ?? []).map(
        (one) => ({ ...one, ...transformedFields(one, [1, 0, 0, 1, 10, 5]) }) as Annotation,
      );
    });
    const reply = await perform(...changed);
    expect(reply.statusCode).toBe(200);
    const after = await exported();
    for (const mark of marks) {
      const object = objectOf(after, mark);
      if (program === 'pdf-lib') expect(object).toContain('/Vendor (kept)');
      const kind = BECOMES[mark.subtype];
      // A way with corners is drawn here: ink is what says that.
      expect(subtypeIn(object)).toBe(mark.subtype === 'PolyLine' ? 'Ink' : mark.subtype);
      if (kind === undefined) expect(object).toBe(objectOf(file, mark));
    }
    const back = await server.annotations(
      (await server.bringIn(readFileSync(after), 'Back.pdf')).id,
    );
    const kinds = back.filter(({ kind }) => kind !== 'foreign').map(({ kind }) => kind);
    expect(kinds.sort()).toEqual(['ink', ...changed.map(({ kind }) => kind)].sort());
  });
});
