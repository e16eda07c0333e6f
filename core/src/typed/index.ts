export * from './body';
export * from './families';
export * from './markers';
