export * from './varints';
