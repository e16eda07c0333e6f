export * from './objects/index';
export * from './pages';
export * from './destinations';
export * from './outline';
export * from './labels';
export * from './content-stream';
export * from './import';
export * from './export';
export { WrittenAnnotations } from './annotations/written';
