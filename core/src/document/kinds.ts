import type { Annotation } from './annotation';

export type Kind = Annotation['kind'];

/** An annotation of a kind. */
export type OfKind<K extends Kind> = Annotation extends infer A
  ? A extends { kind: infer J }
    ? K extends J
      ? A
      : never
    : never
  : never;

/** Something that each kind of annotation answers in its own way; a new kind has to be in it. */
export type Facet<Result, More extends readonly unknown[] = []> = {
  readonly [K in Kind]: (annotation: OfKind<K>, ...more: More) => Result;
};

/** Asks a facet about an annotation. */
export const asked = <Result, More extends readonly unknown[]>(
  facet: Facet<Result, More>,
  annotation: Annotation,
  ...more: More
): Result =>
  (facet[annotation.kind] as (annotation: Annotation, ...more: More) => Result)(
    annotation,
    ...more,
  );
