/** @jest-environment node */
import { textsWithPictures } from './texts-with-pictures';

const found = (path: string, text = '') => ({
  path,
  file: new File([text], path.slice(path.lastIndexOf('/') + 1)),
});
const told = async (...files: ReturnType<typeof found>[]) =>
  (await textsWithPictures(files)).map(({ file, beside }) => [
    file.name,
    ...beside.map(({ path }) => path),
  ]);

test('a picture goes with the text that names it, by its path from there; others come by themselves', async () => {
  const log = found('day 2/log.md', '![a](img/gauge%20board.png) and <img src="slip.jpg">');
  expect(
    await told(
      log,
      found('day 2/img/gauge board.png'),
      found('shared/slip.jpg'),
      found('unnamed.png'),
      found('chart.pdf'),
      found('notes.txt', 'slip.jpg'),
    ),
  ).toEqual([
    ['log.md', 'img/gauge board.png', 'shared/slip.jpg'],
    ['unnamed.png'],
    ['chart.pdf'],
    ['notes.txt'],
  ]);
});

test('without a text that can have pictures, or without pictures, all come as they are', async () => {
  expect(await told(found('a.png'), found('b.txt', 'a.png'))).toEqual([['a.png'], ['b.txt']]);
  expect(await told(found('log.md', '![](a.png)'))).toEqual([['log.md']]);
});

test('two texts may name one picture', async () => {
  const files = [found('a.md', '![](c.png)'), found('b.html', '<img src=c.png>'), found('c.png')];
  expect(await told(...files)).toEqual([
    ['a.md', 'c.png'],
    ['b.html', 'c.png'],
  ]);
});
