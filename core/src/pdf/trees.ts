import { PdfString, latin1, numberOr, type PdfFile, type PdfValue } from './objects/index';

/** Entries of a name tree (ISO 32000-1, 7.9.6), keys as Latin-1 characters. */
export function readNameTree(file: PdfFile, root: PdfValue): Map<string, PdfValue> {
  const entries = new Map<string, PdfValue>();
  for (const [key, value] of leaves(file, root, 'Names')) {
    const resolved = file.resolve(key);
    if (resolved instanceof PdfString) entries.set(latin1(resolved.bytes), value);
  }
  return entries;
}

/** Entries of a number tree (7.9.7), in ascending order. */
export function readNumberTree(file: PdfFile, root: PdfValue): [number, PdfValue][] {
  const entries: [number, PdfValue][] = [];
  for (const [key, value] of leaves(file, root, 'Nums')) {
    const number = numberOr(file.resolve(key));
    if (number !== undefined) entries.push([number, value]);
  }
  return entries.sort((a, b) => a[0] - b[0]);
}

function* leaves(file: PdfFile, root: PdfValue, key: string): Generator<[PdfValue, PdfValue]> {
  const seen = new Set<unknown>();
  const stack: PdfValue[] = [root];
  while (stack.length > 0) {
    const node = file.dict(stack.pop()!);
    if (!node || seen.has(node)) continue;
    seen.add(node);
    const pairs = file.array(node.get(key));
    for (let i = 0; i + 1 < pairs.length; i += 2) yield [pairs[i], pairs[i + 1]];
    stack.push(...file.array(node.get('Kids')).toReversed());
  }
}
