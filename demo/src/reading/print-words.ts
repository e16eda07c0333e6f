// Prints the words and lines of pages as JSON: print-words.ts FILE PAGE …
import { readFileSync } from 'node:fs';
import { readText } from './index';

const [file, ...pages] = process.argv.slice(2);
process.stdout.write(JSON.stringify(await readText(readFileSync(file), pages.map(Number))));
