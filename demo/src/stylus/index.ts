export * from './random';
export * from './letters';
export * from './hand';
export * from './figures';
export * from './replay';
