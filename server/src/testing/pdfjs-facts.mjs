// What pdf.js says of a file: labels, and where the links of each page lead. Run by tests; prints JSON.
import { readFileSync } from 'node:fs';
import { AnnotationType, getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

const data = new Uint8Array(readFileSync(process.argv[2]));
const document = await getDocument({ data, verbosity: 0 }).promise;
const links = [];
const resolved = new Map();

async function resolve(dest) {
  const key = JSON.stringify(dest);
  if (!resolved.has(key)) {
    const explicit = typeof dest === 'string' ? await document.getDestination(dest) : dest;
    const page = explicit && (await document.getPageIndex(explicit[0]).catch(() => undefined));
    resolved.set(key, page === undefined || page === null ? null : [page, ...explicit.slice(1)]);
  }
  return resolved.get(key);
}

for (let i = 0; i < document.numPages; i++) links.push([]);
// All of a file at once, by type: a page asked for its own reads all its text for them as well.
const found = await document.getAnnotationsByType(new Set([AnnotationType.LINK]));
for (const { pageIndex, dest, url, rect } of found)
  links[pageIndex].push({ rect, to: dest ? await resolve(dest) : (url ?? null) });
process.stdout.write(JSON.stringify({ labels: await document.getPageLabels(), links }), () =>
  process.exit(0),
);
