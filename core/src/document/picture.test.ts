import {
  applyAll,
  apply,
  changed,
  documentState,
  invert,
  newId,
  paintingOrder,
  reordered,
  stratumOf,
  transformedFields,
  withAnnotation,
  type Annotation,
  type Effect,
  type Markup,
  type Ordering,
  type Picture,
} from './index';
import { turning } from '../selection/index';

const pageId = newId();
const now = '2026-09-01T08:00:00.000Z';
const base = { pageId, opacity: 1, author: '', created: now, modified: now };
const picture = (order: string, change: Partial<Picture> = {}): Picture => ({
  ...base,
  kind: 'picture',
  id: newId(),
  order,
  digest: 'a'.repeat(64),
  medium: 'pixels',
  width: 4,
  height: 3,
  transform: [40, 0, 0, 30, 10, 10],
  contents: '',
  ...change,
});
const mark = (kind: Markup['kind'], order: string): Markup => ({
  ...base,
  kind,
  id: newId(),
  order,
  color: '#ffe27a',
  quads: [[0, 0, 9, 0, 0, 9, 9, 9]],
  contents: '',
});
const pageOf = (...all: Annotation[]) => documentState('', all).annotations[pageId];
const idsOf = (all: readonly Annotation[]): string[] => all.map(({ id }) => id);

test('pictures lie on the paper, highlights on them, and what is written over both', () => {
  const [over, under] = [mark('underline', 'a1'), mark('highlight', 'a2')];
  const [low, high] = [picture('a3'), picture('a4', { inFront: true })];
  const page = pageOf(over, under, low, high);
  expect(idsOf(paintingOrder(page))).toEqual(idsOf([low, under, over, high]));
  const more = mark('highlight', 'a9');
  const added = paintingOrder(withAnnotation(page, more));
  expect(idsOf(added)).toEqual(idsOf([low, under, more, over, high]));
  expect(idsOf(added)).toEqual(idsOf(paintingOrder({ ...page, [more.id]: more })));
});

test('a picture goes step by step over what is written and under it again', () => {
  const all: Annotation[] = [
    picture('a1'),
    picture('a2'),
    mark('highlight', 'a3'),
    mark('underline', 'a4'),
    mark('strikeout', 'a5'),
  ];
  const [low, high, light, line, strike] = all;
  let page = pageOf(...all);
  const step = (to: Ordering): string[] => {
    for (const [id, fields] of reordered(paintingOrder(page), new Set([low.id]), to))
      page = { ...page, [id]: changed(page[id], fields) };
    return idsOf(paintingOrder(page));
  };
  expect(step('forward')).toEqual(idsOf([high, low, light, line, strike]));
  expect(step('forward')).toEqual(idsOf([high, light, low, line, strike]));
  expect(step('forward')).toEqual(idsOf([high, light, line, low, strike]));
  expect(step('front')).toEqual(idsOf([high, light, line, strike, low]));
  expect(step('front')).toEqual(idsOf([high, light, line, strike, low]));
  expect(step('backward')).toEqual(idsOf([high, light, line, low, strike]));
  expect(step('backward')).toEqual(idsOf([high, light, low, line, strike]));
  expect(step('backward')).toEqual(idsOf([high, low, light, line, strike]));
  expect(stratumOf(page[low.id])).toBe('paper');
  expect(step('back')).toEqual(idsOf([low, high, light, line, strike]));
});

test('a page that is changed many times at once keeps its strata', () => {
  const [line, low] = [mark('underline', 'a1'), picture('a2')];
  const state = documentState('', [line, low]);
  paintingOrder(state.annotations[pageId]);
  const raise: Effect = {
    type: 'annotation.change',
    pageId,
    annotationId: low.id,
    fields: { inFront: true },
  };
  const rename: Effect = { type: 'document.rename', title: 'x' };
  const after = applyAll(state, [raise, rename]);
  expect(idsOf(paintingOrder(after.annotations[pageId]))).toEqual(idsOf([line, low]));
});

test('turning and enlarging keep the file’s pixels: only the map changes, and back again', () => {
  const before = picture('a1');
  let after = before;
  for (let i = 0; i < 12; i++)
    after = changed(after, transformedFields(after, turning({ x: 30, y: 25 }, 30))!) as Picture;
  after.transform.forEach((value, i) => expect(value).toBeCloseTo(before.transform[i], 9));
  expect({ ...after, transform: 0 }).toEqual({ ...before, transform: 0 });
});

test('what a picture cannot be without stays, whatever an operation says; a crop goes and comes back', () => {
  const crop = [
    { x: 0, y: 0 },
    { x: 1, y: 0 },
    { x: 1, y: 1 },
  ];
  const before = picture('a1', { crop });
  const state = documentState('', [before]);
  const effect: Effect = {
    type: 'annotation.change',
    pageId,
    annotationId: before.id,
    fields: { crop: null, transform: null },
  };
  const after = apply(state, effect);
  const { crop: _, ...whole } = before;
  expect(after.annotations[pageId][before.id]).toEqual(whole);
  const back = apply(after, invert(state, effect)!);
  expect(back.annotations[pageId][before.id]).toEqual(before);
});
