// Prints how the lines of all pages look, as headings are told by it, as JSON: print-looks.ts FILE
import { readFileSync } from 'node:fs';
import { lookOf, type LookedPage } from '@stylet/core/text';
import { readText } from './index';

const pages = await readText(readFileSync(process.argv[2]));
const looked = pages.map(({ lines, width, height }): LookedPage => ({
  width,
  height,
  lines: lines.map((line) => lookOf(line)),
}));
process.stdout.write(JSON.stringify(looked));
