export * from './commands';
export * from './color';
export * from './dark';
