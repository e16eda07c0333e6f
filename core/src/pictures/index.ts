export * from './crop';
export * from './placing';
export * from './kinds';
