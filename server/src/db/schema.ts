export * from './tables/accounts';
export * from './tables/files';
export * from './tables/documents';
export * from './tables/finding';
export * from './tables/dictionaries';
export * from './tables/readers';
export * from './tables/stamps';
