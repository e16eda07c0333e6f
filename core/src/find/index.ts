export * from './fold';
export * from './query';
export * from './searchable';
export * from './matches';
