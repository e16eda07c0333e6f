import { annotationSchema, type Annotation } from '../document/index';
import { namedAmong } from './named';

const NOW = '2026-09-01T08:00:00.000Z';
const idOf = (n: number): string => `018f0000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const made = (n: number, fields: object): Annotation =>
  annotationSchema.parse({
    id: idOf(n),
    pageId: idOf(91),
    order: 'a0',
    opacity: 1,
    color: '#22304a',
    author: 'A',
    created: NOW,
    modified: NOW,
    ...fields,
  });
const words = (text: string) => [{ runs: [{ text }] }];
const QUAD = [10, 20, 50, 20, 10, 30, 50, 30];

test('what is said is found where it is said: a reply at what it answers in the end', () => {
  const mark = made(1, { kind: 'highlight', quads: [QUAD], contents: 'under it' });
  const remarked = made(2, { ...mark, id: idOf(2), contents: '', remark: 'Is it so?' });
  const found = namedAmong(
    [],
    [
      mark,
      remarked,
      made(3, { kind: 'note', at: { x: 7, y: 8 }, paragraphs: words('Which gauge?') }),
      made(4, { kind: 'reply', to: idOf(1), paragraphs: words('A better word?') }),
      made(5, { kind: 'reply', to: idOf(6), paragraphs: words('In the register.') }),
      made(6, { kind: 'reply', to: idOf(3), paragraphs: words('Where?') }),
      made(7, { kind: 'reply', to: idOf(3), paragraphs: words('Accepted'), state: 'accepted' }),
      made(8, { kind: 'reply', to: idOf(99), paragraphs: words('To nothing') }),
      made(9, { kind: 'reply', to: idOf(9), paragraphs: words('To itself') }),
    ],
  );
  const pageId = idOf(91);
  expect(found.map(({ text, place }) => [text, place])).toEqual([
    ['Is it so?', { pageId, x: 10, y: 20 }],
    ['Which gauge?', { pageId, x: 7, y: 8 }],
    ['A better word?', { pageId, x: 10, y: 20 }],
    ['In the register.', { pageId, x: 7, y: 8 }],
    ['Where?', { pageId, x: 7, y: 8 }],
    ['To nothing', { pageId }],
    ['To itself', { pageId }],
  ]);
});
