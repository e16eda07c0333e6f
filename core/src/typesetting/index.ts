export * from './changed-lines';
export * from './engine';
export * from './items';
export * from './layout';
export * from './subsetter';
export * from './text-layout';
export * from './text-parts';
