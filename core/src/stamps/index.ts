export * from './stamp';
export * from './placing';
export * from './drawings';
export * from './shipped';
