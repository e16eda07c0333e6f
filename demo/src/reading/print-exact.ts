// Prints how many of COUNT strokes of a highlighter mark just the words that are meant: print-exact.ts FILE COUNT
import { readFileSync } from 'node:fs';
import { seeded } from '@stylet/core/random';
import { readText } from './index';
import { isExact, markedOf, meantOn, printedPages } from './meant';

const [file, count] = process.argv.slice(2);
const MOST_PAGES = 12;
const printed = printedPages(file).slice(0, MOST_PAGES);
const pages = await readText(
  readFileSync(file),
  printed.map((_, i) => i + 1),
);
const random = seeded(11);
let exact = 0;
for (let done = 0; done < Number(count);) {
  const page = Math.floor(random() * printed.length);
  const meant = meantOn(printed[page], random);
  if (!meant) continue;
  done++;
  if (isExact(markedOf(pages[page], printed[page], meant), meant)) exact++;
}
console.log(exact);
