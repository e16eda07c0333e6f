export * from './frame';
export * from './copies';
export * from './clip';
