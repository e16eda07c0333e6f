export * from './bytes';
export * from './values';
export * from './parser';
export * from './file';
export * from './serialize';
export * from './update';
export * from './text-string';
export * from './date';
