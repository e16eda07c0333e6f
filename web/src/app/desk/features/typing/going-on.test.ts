import type { TextBox } from '@stylet/core/document';
import { fieldsSince, goneOn } from './going-on';

const box: TextBox = {
  kind: 'textBox',
  id: '018f0000-0000-7000-8000-000000000001',
  pageId: '018f0000-0000-7000-8000-000000000091',
  order: 'a0',
  color: '#111111',
  opacity: 1,
  author: 'A',
  created: '2026-09-01T08:00:00.000Z',
  modified: '2026-09-01T08:00:00.000Z',
  look: { font: 'inter', size: 12 },
  paragraphs: [{ runs: [{ text: 'high water' }] }],
  frame: { padding: 4 },
  size: { width: 90, height: 20 },
  transform: [1, 0, 0, 1, 0, 0],
};
const typed = (text: string): TextBox['paragraphs'] => [{ runs: [{ text }] }];

test('of a box only what was changed is told; its size goes with its words', () => {
  const modified = '2026-09-01T08:00:09.000Z';
  expect(fieldsSince(box, { ...box, modified })).toBeUndefined();
  expect(fieldsSince(box, { ...box, color: '#222222', modified })).toEqual({
    color: '#222222',
    modified,
  });
  const size = { width: 120, height: 20 };
  expect(fieldsSince(box, { ...box, size, modified })).toEqual({
    size,
    paragraphs: box.paragraphs,
    modified,
  });
  expect(fieldsSince({ ...box, keepsWidth: true }, box)).toEqual({
    keepsWidth: null,
    modified: box.modified,
  });
});

test('what somebody has made of a box and what is typed here are both in it', () => {
  const theirs: TextBox = {
    ...box,
    color: '#333333',
    paragraphs: typed('Spring: high water'),
    transform: [1, 0, 0, 1, 50, 60],
    modified: '2026-09-01T08:00:05.000Z',
  };
  const draft: TextBox = {
    ...box,
    frame: { padding: 8 },
    paragraphs: typed('high water at noon'),
  };
  expect(goneOn(box, theirs, draft)).toEqual({
    ...theirs,
    frame: { padding: 8 },
    paragraphs: typed('Spring: high water at noon'),
  });
  expect(goneOn(box, { ...box }, draft).paragraphs).toBe(draft.paragraphs);
});
