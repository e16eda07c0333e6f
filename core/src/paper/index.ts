export * from './sizes';
