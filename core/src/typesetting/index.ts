export * from './changed-lines';
export * from './engine';
export * from './formula';
export * from './items';
export * from './layout';
export { ShapedParagraph } from './shaped-paragraph';
export * from './subsetter';
export * from './text-layout';
export * from './text-parts';
