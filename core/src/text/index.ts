export * from './glyphs';
export * from './words';
export * from './lines';
export * from './order';
export * from './range';
export * from './page-text';
export * from './marks';
export * from './pitch';
