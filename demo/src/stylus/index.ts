export * from './random';
export * from './letters';
export * from './hand';
export * from './figures';
export * from './palm';
export * from './replay';
