import { titlesOf } from './titles';

test.each([
  // Numbers of catalogues, digests, and what programs call files (common practice, no source).
  ['2306.01234v2.pdf', 'Drift along a sheltered shore', true],
  ['s41586-021-03819-2.pdf', 'Drift along a sheltered shore', true],
  ['download (3).pdf', 'Drift along a sheltered shore', true],
  ['d41d8cd98f00b204e9800998ecf8427e.pdf', 'Drift along a sheltered shore', true],
  ['Untitled.pdf', '潮汐入門', true],
  ['abc 123456789012.pdf', 'Drift along a sheltered shore', true],
  // Somebody named it.
  ['Drift_week 3.pdf', 'Drift along a sheltered shore', false],
  ['tides.pdf', 'Drift along a sheltered shore', false],
  ['潮汐.pdf', 'An introduction to tides', false],
  ['Week 12345678.pdf', 'Drift along a sheltered shore', false],
  ['Tide notes deadbeefdeadbeef.pdf', 'Drift along a sheltered shore', false],
  ['deadbeefdeadbeef tide notes.pdf', 'Drift along a sheltered shore', false],
  ['abcdefabcdef.pdf', 'Drift along a sheltered shore', false],
  ['Drift document.pdf', 'Drift along a sheltered shore', false],
  ['scanner settings.pdf', 'Drift along a sheltered shore', false],
  // What stands inside is a leftover.
  ['2306.01234v2.pdf', 'Microsoft Word - drift7.doc', false],
  ['scan.pdf', 'main.tex', false],
  ['scan.pdf', 'Slide 1', false],
  ['scan.pdf', 'Notes (odt)', true],
  ['scan.pdf', 'Slide 1 of the tide', true],
  ['scan.pdf', 'Tide', true],
  ['scan.pdf', 'Ebb 12345', false],
])('%s with the title “%s” inside: is it called by that? %s', (file, inside, isTitle) => {
  const name = file.replace(/\.pdf$/, '').replace(/_/g, ' ');
  expect(titlesOf(file, inside, 'better')).toEqual(
    isTitle ? { title: inside, otherTitle: name } : { title: name, otherTitle: inside },
  );
});

test('one can always have the file’s name, or always the title', () => {
  expect(titlesOf('tides.pdf', 'Drift', 'title').title).toBe('Drift');
  expect(titlesOf('1234.pdf', 'Drift and tides', 'file').title).toBe('1234');
  expect(titlesOf('tides.pdf', undefined, 'title')).toEqual({ title: 'tides', otherTitle: null });
  expect(titlesOf('tides.pdf', `${' '.repeat(400)}Drift `, 'title').title).toBe('Drift');
  expect(titlesOf('tides.pdf', ' tides ', 'title').otherTitle).toBeNull();
  expect(titlesOf('.pdf', '  ', 'better')).toEqual({ title: 'Untitled', otherTitle: null });
});
