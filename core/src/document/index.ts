export * from './annotation';
export * from './operation';
export * from './state';
export * from './apply';
export * from './ids';
export * from './erase';
export * from './history';
