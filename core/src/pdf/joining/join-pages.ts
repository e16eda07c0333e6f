import type { SourceOfPage } from '../../document/index';
import { subtypeOf } from '../annotations/kinds';
import { Destinations } from '../destinations';
import {
  Copier,
  PdfDict,
  PdfRef,
  PdfUpdate,
  deflateHere,
  type Deflate,
  type PdfValue,
} from '../objects/index';
import type { PdfPage } from '../pages';
import { withoutSignatures } from '../signatures';
import { joinAttachments } from './attachments';
import { joinFields } from './fields';
import { joinLayers } from './layers';
import type { Joining, SourceFile } from './source-file';

/** A file with pages of others behind its own. */
export interface JoinedPages {
  /** What makes it of the file: an incremental update (ISO 32000-1, 7.5.6). */
  readonly update: Uint8Array;
  /** Where a page is in it; undefined for pages that were not wanted. */
  readonly indexOf: (sheet: SourceOfPage) => number | undefined;
  /** The object in it that an object of a file is; undefined for what did not come along. */
  readonly objectOf: (digest: string, object: number) => number | undefined;
}

/**
 * Puts the pages of other files that are `wanted` behind those of a file: contents and resources, each
 * object once; annotations and fields; layers; files inside. Links between them stay, also named ones (12.3.2); those
 * to pages that are not wanted are left out. Throws RangeError for a page a file does not have.
 */
export function joinPages(
  base: SourceFile,
  others: readonly SourceFile[],
  wanted: readonly SourceOfPage[],
  deflate: Deflate = deflateHere,
): JoinedPages {
  const update = new PdfUpdate(base.file, deflate);
  const root = base.file.catalog.get('Pages') as PdfRef;
  const indices = new Map<string, Map<number, number>>();
  const kids: PdfRef[] = [];
  const joining = others.map((other): Joining => {
    const places = new Map<number, number>();
    const refs = new Map<number, PdfRef>();
    for (const { source, sourceIndex } of wanted) {
      if (source !== other.digest || places.has(sourceIndex)) continue;
      const page = other.pages[sourceIndex];
      if (!page) throw new RangeError(`the file has no page ${sourceIndex}`);
      const ref = update.reserve();
      places.set(sourceIndex, base.pages.length + kids.length);
      refs.set(page.ref.object, ref);
      kids.push(ref);
    }
    indices.set(other.digest, places);
    return {
      ...other,
      copier: new Copier(other.file, update, refs),
      destinations: new Destinations(other.file, other.pages),
    };
  });
  for (const other of joining)
    for (const index of indices.get(other.digest)!.keys()) copyPage(other, index, root, update);
  const tree = base.file.dict(root)!;
  update.set(
    root,
    tree.with({
      Kids: [...base.file.array(tree.get('Kids')), ...kids],
      Count: base.pages.length + kids.length,
    }),
  );
  const catalog = {
    ...withoutSignatures(base.file, update),
    ...joinFields(base, joining, indices),
    ...joinLayers(base, joining),
    ...joinAttachments(base, joining),
  };
  if (Object.keys(catalog).length > 0)
    update.set(base.file.trailer.get('Root') as PdfRef, base.file.catalog.with(catalog));
  return {
    update: update.bytes(),
    indexOf: ({ source, sourceIndex }) =>
      source === base.digest ? sourceIndex : indices.get(source)?.get(sourceIndex),
    objectOf: (digest, object) =>
      digest === base.digest
        ? object
        : joining.find((other) => other.digest === digest)?.copier.copyOf(object)?.object,
  };
}

function copyPage(
  { file, pages, copier, destinations }: Joining,
  index: number,
  parent: PdfRef,
  update: PdfUpdate,
): void {
  const page = pages[index];
  const annots = file
    .array(page.dict.get('Annots'))
    .flatMap((value) => copyAnnotation(value, { file, pages, copier, destinations }) ?? []);
  // Without the beads of articles, which are not read (12.4.3).
  const own = page.dict.with({ ...attributesOf(page), Parent: null, Annots: null, B: null });
  update.set(
    copier.copyOf(page.ref.object)!,
    copier.copyDict(own).with({ Parent: parent, Annots: annots.length > 0 ? annots : null }),
  );
}

/** What a page would otherwise inherit from another tree (7.7.3.4). */
function attributesOf({ attributes, box, rotation }: PdfPage): Record<string, PdfValue> {
  const { x0, y0, x1, y1 } = box;
  const media = attributes.get('MediaBox') ?? [x0, y0, x1, y1];
  return {
    MediaBox: media,
    CropBox: attributes.get('CropBox') ?? media,
    Rotate: rotation,
    Resources: attributes.get('Resources') ?? new PdfDict(),
  };
}

/** An annotation in its new place; a link only if it still leads somewhere. */
function copyAnnotation(
  value: PdfValue,
  {
    file,
    pages,
    copier,
    destinations,
  }: Pick<Joining, 'file' | 'pages' | 'copier' | 'destinations'>,
): PdfValue | undefined {
  const dict = file.dict(value);
  if (!dict) return undefined;
  const isLink = subtypeOf(file, dict) === 'Link';
  const explicit = isLink ? destinations.arrayOf(dict) : undefined;
  if (!explicit) return copier.copy(value);
  const [target, ...view] = explicit;
  const page = typeof target === 'number' ? pages[target]?.ref : target;
  if (!(page instanceof PdfRef) || !copier.copyOf(page.object)) return undefined;
  const led = dict.with({ A: null, Dest: [page, ...view] });
  return value instanceof PdfRef ? copier.copyAs(value, led) : copier.copyDict(led);
}
