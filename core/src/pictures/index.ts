export * from './crop';
export * from './placing';
