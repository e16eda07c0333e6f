export * from './body';
export * from './engine';
export * from './families';
export * from './items';
export * from './layout';
export * from './markers';
