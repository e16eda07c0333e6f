export * from './scratch-out';
export * from './scratched';
export * from './ring';
export * from './hull';
