export * from './made';
