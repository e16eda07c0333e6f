export * from './deck';
export * from './handbook';
export * from './paper';
