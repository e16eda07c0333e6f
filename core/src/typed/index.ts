export * from './body';
export * from './families';
export * from './markers';
export * from './notation';
export * from './merge';
