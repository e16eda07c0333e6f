/** Fonts that typed text can be set in; all are shipped, under the SIL Open Font License. */
export const families = [
  'source-serif-4',
  'eb-garamond',
  'noto-sans',
  'inter',
  'noto-sans-mono',
  'playpen-sans',
  'caveat',
] as const;
export type Family = (typeof families)[number];

/** Fonts that have what those lack, in the order in which they are asked. */
export const fallbacks = [
  'noto-sans',
  'noto-sans-hebrew',
  'noto-naskh-arabic',
  'noto-sans-math',
  'noto-sans-symbols-2',
  'noto-emoji',
  'droid-sans-fallback',
  'unifont',
] as const;
export type Fallback = (typeof fallbacks)[number];

/** A font of one weight and slant: the name of its file. */
export type FaceId = string;
/** What formulas are set with: it comes as fonts do, and is none. */
export const MATHEMATICS: FaceId = 'mathematics';

interface FamilyFacts {
  /** As people choose it. */
  readonly name: string;
  readonly kind: 'serif' | 'sans' | 'mono' | 'hand' | 'fallback';
  readonly hasBold: boolean;
  readonly hasItalic: boolean;
}

export const familyFacts: Readonly<Record<Family | Fallback, FamilyFacts>> = {
  'source-serif-4': { name: 'Source Serif', kind: 'serif', hasBold: true, hasItalic: true },
  'eb-garamond': { name: 'EB Garamond', kind: 'serif', hasBold: true, hasItalic: true },
  'noto-sans': { name: 'Noto Sans', kind: 'sans', hasBold: true, hasItalic: true },
  inter: { name: 'Inter', kind: 'sans', hasBold: true, hasItalic: true },
  'noto-sans-mono': { name: 'Noto Sans Mono', kind: 'mono', hasBold: true, hasItalic: false },
  'playpen-sans': { name: 'Playpen Sans', kind: 'hand', hasBold: true, hasItalic: false },
  caveat: { name: 'Caveat', kind: 'hand', hasBold: true, hasItalic: false },
  'noto-sans-hebrew': {
    name: 'Noto Sans Hebrew',
    kind: 'fallback',
    hasBold: true,
    hasItalic: false,
  },
  'noto-naskh-arabic': {
    name: 'Noto Naskh Arabic',
    kind: 'fallback',
    hasBold: true,
    hasItalic: false,
  },
  'noto-sans-math': { name: 'Noto Sans Math', kind: 'fallback', hasBold: false, hasItalic: false },
  'noto-sans-symbols-2': {
    name: 'Noto Sans Symbols 2',
    kind: 'fallback',
    hasBold: false,
    hasItalic: false,
  },
  'noto-emoji': { name: 'Noto Emoji', kind: 'fallback', hasBold: true, hasItalic: false },
  'droid-sans-fallback': {
    name: 'Droid Sans Fallback',
    kind: 'fallback',
    hasBold: false,
    hasItalic: false,
  },
  unifont: { name: 'Unifont', kind: 'fallback', hasBold: false, hasItalic: false },
};

/** A face of a family, and what it has to be helped with: slanted by us, made bold by us. */
export interface Face {
  readonly id: FaceId;
  readonly family: Family | Fallback;
  readonly isSlanted: boolean;
  readonly isThickened: boolean;
}

/** The face of a family that comes nearest to what is wanted. */
export function faceOf(family: Family | Fallback, isBold: boolean, isItalic: boolean): Face {
  const { hasBold, hasItalic } = familyFacts[family];
  const style = `${isBold && hasBold ? '-bold' : ''}${isItalic && hasItalic ? '-italic' : ''}`;
  return {
    id: family + style,
    family,
    isSlanted: isItalic && !hasItalic,
    isThickened: isBold && !hasBold,
  };
}

/** The family that a face is of. */
export const familyOf = (face: FaceId): Family | Fallback =>
  face.replace(/(-bold)?(-italic)?$/, '') as Family | Fallback;

/** All faces there are. */
export const faceIds: readonly FaceId[] = (
  Object.keys(familyFacts) as (Family | Fallback)[]
).flatMap((family) => {
  const ids = [false, true].flatMap((bold) =>
    [false, true].map((italic) => faceOf(family, bold, italic).id),
  );
  return [...new Set(ids)];
});
