import {
  MATHEMATICS,
  faceOf,
  markerOf,
  textOfParagraph,
  type Body,
  type Face,
  type FaceId,
  type Family,
  type Look,
  type Paragraph,
} from '../typed/index';
import { covers, familyFor } from './coverage';
import { directionsOf, type Directions } from './directions';

import { scriptOf } from './scripts';

/** A piece of a paragraph that is shaped at one go: of one look, face, script and level. */
export interface Item {
  readonly from: number;
  readonly to: number;
  readonly look: Look;
  readonly face: Face;
  readonly script: string;
  readonly level: number;
  readonly isTab: boolean;
  /** The formula that it is, in TeX notation. */
  readonly formula?: string;
}

export interface Itemized {
  /** With U+2028 for a line break within the paragraph, so that both annexes take it for one. */
  readonly text: string;
  readonly directions: Directions;
  readonly items: readonly Item[];
}

/** ASCII is in every family but those that others fall back on. */
const PLAIN = /^[\x20-\x7e]*$/;
const TAB = '\t';
const graphemes = new Intl.Segmenter('und', { granularity: 'grapheme' });

/** What letters of a run look like. */
export const lookOf = (base: Look, own: Partial<Look> | undefined): Look =>
  own ? { ...base, ...own } : base;

/** Parts a paragraph into what can be shaped at one go, in the order of its text. */
export function itemize(paragraph: Paragraph, base: Look): Itemized {
  const text = textOfParagraph(paragraph).replaceAll('\n', '\u2028');
  const directions = directionsOf(text, paragraph.direction);
  const items: Item[] = [];
  let at = 0;
  let script: string | undefined;
  for (const run of paragraph.runs) {
    const look = lookOf(base, run.look);
    const end = at + run.text.length;
    if (look.formula !== undefined) {
      const face = faceOf(look.font, look.bold ?? false, look.italic ?? false);
      for (let i = at; i < end; i++) {
        const level = directions.levels?.[i] ?? 0;
        const one = { from: i, to: i + 1, look, face, script: script ?? 'Latn', level };
        items.push({ ...one, isTab: false, formula: look.formula });
      }
      at = end;
      continue;
    }
    for (const { from, to, family } of byFamily(text, at, end, look.font)) {
      const face = faceOf(family, look.bold ?? false, look.italic ?? false);
      for (let i = from; i < to;) {
        const isTab = text[i] === TAB;
        const level = directions.levels?.[i] ?? 0;
        let j = i;
        let own: string | undefined = isTab ? undefined : script;
        while (j < to && (text[j] === TAB) === isTab && (directions.levels?.[j] ?? 0) === level) {
          const codePoint = text.codePointAt(j)!;
          const next = isTab ? undefined : scriptOf(codePoint);
          if (next !== undefined && own !== undefined && next !== own && hasOwn(text, i, j)) break;
          own = next ?? own;
          j += codePoint > 0xffff ? 2 : 1;
          if (isTab) break;
        }
        script = own ?? script;
        items.push({ from: i, to: j, look, face, script: own ?? 'Latn', level, isTab });
        i = j;
      }
    }
    at = end;
  }
  return { text, directions, items };
}

/** Whether anything of a piece has a script of its own. */
function hasOwn(text: string, from: number, to: number): boolean {
  for (let i = from; i < to; i++) if (scriptOf(text.codePointAt(i)!) !== undefined) return true;
  return false;
}

/** Parts a piece of text by the family that has what is in it: whole letters, with the marks on them. */
function byFamily(
  text: string,
  from: number,
  to: number,
  wanted: Family,
): { from: number; to: number; family: Face['family'] }[] {
  const piece = text.slice(from, to);
  if (PLAIN.test(piece)) return [{ from, to, family: wanted }];
  const parts: { from: number; to: number; family: Face['family'] }[] = [];
  for (const { segment, index } of graphemes.segment(piece)) {
    const last = parts.at(-1);
    // Spaces go with what stands before them, if its font has them.
    const isSpace = last !== undefined && /^\s$/.test(segment);
    const family =
      isSpace && covers(last.family, segment.charCodeAt(0))
        ? last.family
        : familyFor(wanted, segment);
    if (last?.family === family) last.to = from + index + segment.length;
    else parts.push({ from: from + index, to: from + index + segment.length, family });
  }
  return parts;
}

/** Faces that a body is set in. */
export function facesIn({ look, paragraphs }: Pick<Body, 'look' | 'paragraphs'>): Set<FaceId> {
  const faces = new Set<FaceId>([faceOf(look.font, look.bold ?? false, look.italic ?? false).id]);
  const key = `${look.font} ${look.bold} ${look.italic}`;
  for (const paragraph of paragraphs) {
    let known = facesOf.get(paragraph);
    if (known?.key !== key)
      facesOf.set(paragraph, (known = { key, faces: facesOfParagraph(paragraph, look) }));
    for (const face of known.faces) faces.add(face);
  }
  return faces;
}

/** Paragraphs are immutable: what they are set in is found out once, where the rest of the text looks the same. */
const facesOf = new WeakMap<Paragraph, { readonly key: string; readonly faces: Set<FaceId> }>();

function facesOfParagraph(paragraph: Paragraph, look: Look): Set<FaceId> {
  const marker = {
    ...paragraph,
    runs: [{ text: markerOf(paragraph, 1), look: paragraph.runs[0]?.look }],
  };
  const faces = new Set<FaceId>();
  for (const one of paragraph.list ? [paragraph, marker] : [paragraph])
    for (const { face, formula } of itemize(one, look).items) {
      faces.add(face.id);
      if (formula !== undefined) faces.add(MATHEMATICS);
    }
  return faces;
}
