export * from './sizes';
export * from './paper';
