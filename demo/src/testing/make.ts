// Makes a document of the demo: its function, and the file it is written to.
import { writeFileSync } from 'node:fs';
import * as documents from '../documents/index';

const [make, file] = process.argv.slice(2);
writeFileSync(file, await documents[make as keyof typeof documents]());
