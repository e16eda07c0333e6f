export * from './samples';
export * from './codec';
export * from './one-euro';
export * from './spine';
export * from './outline';
export * from './stroke';
export * from './hit';
