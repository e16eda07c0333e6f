import { dispositionFor } from './download-name';

test('a plain name is quoted', () => {
  expect(dispositionFor('Tide tables.pdf', 'inline')).toBe('inline; filename="Tide tables.pdf"');
});

// RFC 8187, 3.2.3: percent-encoded UTF-8; RFC 6266, 4.3: with a form for those who do not know that.
test('names beyond ASCII come in both forms', () => {
  const told = dispositionFor('Überschwemmung (naïve).pdf', 'attachment');
  expect(told).toContain("filename*=UTF-8''%C3%9Cberschwemmung%20%28na%C3%AFve%29.pdf");
  expect(told).toMatch(/^attachment; filename="[\x20-\x7e]+";/);
});

test.each([
  ['../../etc/passwd', /filename="[^/\\]*"/],
  ['a\r\nset-cookie: x', /^attachment; filename="[^\r\n]*"$/],
  ['\ud800', /^attachment; filename=/],
  ['', /filename="?document"?/],
  ['CON', /^(?!.*"CON").*$/],
])('%j does no harm', (name, form) => expect(dispositionFor(name, 'attachment')).toMatch(form));
