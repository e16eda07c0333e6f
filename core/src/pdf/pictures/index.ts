export * from './orientation';
export * from './prepared';
export * from './add';
export * from './one-page';
export * from './embedded';
