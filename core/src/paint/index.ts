export * from './commands';
export * from './color';
