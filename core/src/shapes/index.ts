export * from './shape';
export * from './paths';
export * from './handles';
export * from './fit';
export * from './recognise';
export * from './adjust';
export { levelled } from './regular';
export * from './arc';
export * from './resample';
