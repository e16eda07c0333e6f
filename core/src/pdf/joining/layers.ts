import { PdfDict, PdfRef, nameText, type PdfFile, type PdfValue } from '../objects/index';
import type { Joining, SourceFile } from './source-file';

/**
 * The catalogue's optional content (ISO 32000-1, 8.11.4) with the layers that came along with pages that are
 * joined, shown or hidden as they were; nothing where none did.
 */
export function joinLayers(
  base: SourceFile,
  joining: readonly Joining[],
): Record<string, PdfValue> {
  const groups: PdfRef[] = [];
  const off: PdfRef[] = [];
  for (const { file, copier } of joining) {
    const hidden = new Set(hiddenIn(file));
    for (const group of groupsOf(file)) {
      const copy = copier.copyOf(group.object);
      if (!copy) continue;
      groups.push(copy);
      if (hidden.has(group.object)) off.push(copy);
    }
  }
  if (groups.length === 0) return {};
  const { file } = base;
  const own = propertiesOf(file) ?? new PdfDict();
  const config = file.dict(own.get('D')) ?? new PdfDict();
  const shown = groups.filter((group) => !off.includes(group));
  const more = (key: string, added: readonly PdfRef[]): PdfValue[] => [
    ...file.array(config.get(key)),
    ...added,
  ];
  return {
    OCProperties: own.with({
      OCGs: [...groupsOf(file), ...groups],
      D: config.with({
        ON: more('ON', shown),
        OFF: more('OFF', off),
        Order: more('Order', groups),
      }),
    }),
  };
}

const propertiesOf = (file: PdfFile): PdfDict | undefined =>
  file.dict(file.catalog.get('OCProperties'));

const groupsOf = (file: PdfFile): PdfRef[] =>
  file
    .array(propertiesOf(file)?.get('OCGs') ?? null)
    .filter((value): value is PdfRef => value instanceof PdfRef);

/** The groups that are hidden at first (table 101: BaseState, ON, OFF). */
function hiddenIn(file: PdfFile): number[] {
  const config = file.dict(propertiesOf(file)?.get('D') ?? null);
  const listed = (key: string): number[] =>
    file
      .array(config?.get(key) ?? null)
      .flatMap((value) => (value instanceof PdfRef ? value.object : []));
  if (nameText(file.resolve(config?.get('BaseState') ?? null)) !== 'OFF') return listed('OFF');
  const on = new Set(listed('ON'));
  return groupsOf(file)
    .map(({ object }) => object)
    .filter((object) => !on.has(object));
}
