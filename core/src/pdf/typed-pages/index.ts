export * from './typed-pdf';
export { readSource } from './source';
