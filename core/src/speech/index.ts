export * from './sentences';
export * from './wav';
