import { newId } from '@stylet/core/document';
import { OpenTabs } from './open-tabs';

const [a, b, c, d] = ['A', 'B', 'C', 'D'].map((title) => ({ id: newId(), title }));
const titles = ({ tabs }: OpenTabs): string =>
  tabs()
    .map(({ title }) => title)
    .join('');

beforeEach(() => sessionStorage.clear());

function opened(): OpenTabs {
  const tabs = new OpenTabs();
  for (const tab of [a, b, c]) tabs.show(tab);
  return tabs;
}

test('a document gets a tab once, beside the one it was opened from, under its latest title', () => {
  const tabs = opened();
  tabs.show(a);
  tabs.show(d);
  expect(titles(tabs)).toBe('ADBC');
  tabs.show({ ...b, title: 'b' });
  expect(titles(tabs)).toBe('ADbC');
});

test('a closed one leads to its neighbour, and is remembered until it is opened again', () => {
  const tabs = opened();
  expect(tabs.close(c.id)).toEqual(b);
  expect(tabs.close(a.id)).toEqual(b);
  expect(tabs.closed()).toEqual([a, c]);
  tabs.show(c);
  expect(tabs.closed()).toEqual([a]);
  tabs.close(b.id);
  expect(tabs.close(c.id)).toBeUndefined();
});

test('tabs are moved, forgotten, and kept over a reload', () => {
  const tabs = opened();
  tabs.move(2, 0);
  tabs.move(0, -1);
  expect(titles(tabs)).toBe('CAB');
  tabs.forget(a.id);
  expect(titles(new OpenTabs())).toBe('CB');
  sessionStorage.setItem('stylet.tabs', '{"open": [{"id": 7}]}');
  expect(titles(new OpenTabs())).toBe('');
});
