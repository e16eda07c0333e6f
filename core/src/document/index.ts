export {
  digestSchema,
  idSchema,
  matrixSchema,
  originSchema,
  quadSchema,
  type Origin,
  type Quad,
} from './common-fields';
export * from './annotation';
export * from './picture';
export * from './text-box';
export * from './text-style';
export * from './words';
export * from './strata';
export * from './landmark';
export * from './link';
export * from './note';
export * from './own-forms';
export * from './threads';
export * from './outline-tree';
export * from './nested-entries';
export * from './coverage';
export * from './page';
export * from './page-effects';
export * from './copied-pages';
export * from './taken-pages';
export * from './present';
export * from './operation';
export * from './state';
export * from './apply';
export {
  changed,
  deedOf,
  placeOfDeed,
  whereOf,
  type EntityName,
  type Whereabouts,
} from './entities';
export * from './kinds';
export * from './colors';
export * from './draft';
export * from './ids';
export * from './erase';
export * from './history';
export * from './replica';
export * from './read-apart';
export * from './contested';
export * from './shape-ink';
export * from './transform';
export * from './enclosed';
export * from './sorts';
export * from './ordering';
export { byOrder } from './orders';
export * from './references';
export * from './removal';
export * from './shown';
export * from './notice';
export * from './writings';
