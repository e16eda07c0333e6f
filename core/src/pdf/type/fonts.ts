import { familyFacts, familyOf, type FaceId } from '../../typed/index';
import {
  PdfDict,
  bytesOf,
  name,
  textString,
  type PdfRef,
  type PdfUpdate,
  type PdfValue,
} from '../objects/index';
import type { TypeTools } from './type-tools';

/** Where the objects of a face stand in a file. */
export interface FaceObjects {
  readonly font: PdfRef;
  readonly descendant: PdfRef;
  readonly descriptor: PdfRef;
  readonly file: PdfRef;
  readonly unicode: PdfRef;
}

/** Flags of font descriptors (ISO 32000-1, table 123). */
const FLAGS = { fixedPitch: 1, serif: 2, symbolic: 4, script: 8, italic: 64 };

/** Writes a face with just the glyphs that are used, as a composite font (ISO 32000-1, 9.7): its codes are its glyphs' numbers. */
export function writeFace(
  update: Pick<PdfUpdate, 'set' | 'setStream'>,
  face: FaceId,
  glyphs: ReadonlySet<number>,
  tools: TypeTools,
  { font, descendant, descriptor, file, unicode }: FaceObjects,
): void {
  const { engine } = tools.typesetter;
  const subset = tools.subset(face, glyphs);
  const sorted = [...glyphs].sort((a, b) => a - b);
  const called = name(`${tagOf(sorted)}+${postScriptName(face)}`);
  const isCff = isOpenTypeCff(subset);
  update.set(
    font,
    PdfDict.of({
      Type: name('Font'),
      Subtype: name('Type0'),
      BaseFont: called,
      Encoding: name('Identity-H'),
      DescendantFonts: [descendant],
      ToUnicode: unicode,
    }),
  );
  const thousandths = (share: number): number => Math.round(share * 1000);
  update.set(
    descendant,
    PdfDict.of({
      Type: name('Font'),
      Subtype: name(isCff ? 'CIDFontType0' : 'CIDFontType2'),
      BaseFont: called,
      CIDSystemInfo: PdfDict.of({
        Registry: textString('Adobe'),
        Ordering: textString('Identity'),
        Supplement: 0,
      }),
      FontDescriptor: descriptor,
      DW: 0,
      W: sorted.flatMap((glyph): PdfValue[] => [
        glyph,
        [Math.round(engine.advance(face, glyph) * 1e5) / 100],
      ]),
      ...(isCff ? {} : { CIDToGIDMap: name('Identity') }),
    }),
  );
  const { ascent, descent } = engine.metrics(face);
  update.set(
    descriptor,
    PdfDict.of({
      Type: name('FontDescriptor'),
      FontName: called,
      Flags: flagsOf(face),
      FontBBox: [-1000, -thousandths(descent), 3000, thousandths(ascent)],
      ItalicAngle: face.endsWith('-italic') ? -12 : 0,
      Ascent: thousandths(ascent),
      Descent: -thousandths(descent),
      CapHeight: thousandths(ascent * 0.66),
      StemV: face.includes('-bold') ? 140 : 80,
      [isCff ? 'FontFile3' : 'FontFile2']: file,
    }),
  );
  const entries = isCff ? { Subtype: name('OpenType') } : { Length1: subset.length };
  update.setStream(file, PdfDict.of(entries), subset);
  update.setStream(unicode, new PdfDict(), bytesOf(unicodeMap(sorted, tools.meaningsOf(face))));
}

/** A font of OpenType with outlines of CFF begins with this tag (OpenType 1.9, “Organization of an OpenType font”). */
const isOpenTypeCff = (file: Uint8Array): boolean =>
  String.fromCharCode(...file.subarray(0, 4)) === 'OTTO';

function flagsOf(face: FaceId): number {
  const { kind } = familyFacts[familyOf(face)];
  return (
    FLAGS.symbolic |
    (kind === 'serif' ? FLAGS.serif : 0) |
    (kind === 'mono' ? FLAGS.fixedPitch : 0) |
    (kind === 'hand' ? FLAGS.script : 0) |
    (face.endsWith('-italic') ? FLAGS.italic : 0)
  );
}

/** The name of a face as a name of PostScript. */
function postScriptName(face: FaceId): string {
  const style = `${face.includes('-bold') ? 'Bold' : ''}${face.endsWith('-italic') ? 'Italic' : ''}`;
  return `${familyFacts[familyOf(face)].name.replaceAll(' ', '')}-${style || 'Regular'}`;
}

/** The tag that tells a subset from others: six capitals (9.6.4), by its glyphs. */
function tagOf(glyphs: readonly number[]): string {
  let hash = glyphs.length;
  for (const glyph of glyphs) hash = (Math.imul(hash, 31) + glyph) >>> 0;
  return Array.from({ length: 6 }, (_, i) =>
    String.fromCharCode(65 + (Math.floor(hash / 26 ** i) % 26)),
  ).join('');
}

/** The most entries in one section of a CMap (9.10.3 with Adobe Technical Note 5014). */
const MOST_IN_SECTION = 100;

/** What glyphs stand for, as a ToUnicode CMap (9.10.3). */
function unicodeMap(glyphs: readonly number[], meanings: ReadonlyMap<number, string>): string {
  const hex = (text: string): string =>
    Array.from({ length: text.length }, (_, i) =>
      text.charCodeAt(i).toString(16).padStart(4, '0'),
    ).join('');
  const lines = glyphs.flatMap((glyph) => {
    const text = meanings.get(glyph);
    return text ? [`<${glyph.toString(16).padStart(4, '0')}> <${hex(text)}>`] : [];
  });
  const sections: string[] = [];
  for (let i = 0; i < lines.length; i += MOST_IN_SECTION) {
    const some = lines.slice(i, i + MOST_IN_SECTION);
    sections.push(`${some.length} beginbfchar\n${some.join('\n')}\nendbfchar`);
  }
  return `/CIDInit /ProcSet findresource begin
12 dict begin
begincmap
/CIDSystemInfo <</Registry (Adobe) /Ordering (UCS) /Supplement 0>> def
/CMapName /Adobe-Identity-UCS def
/CMapType 2 def
1 begincodespacerange
<0000> <ffff>
endcodespacerange
${sections.join('\n')}
endcmap
CMapName currentdict /CMap defineresource pop
end
end
`;
}
