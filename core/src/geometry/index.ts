export * from './point';
export * from './box';
export * from './matrix';
export * from './rotation';
export * from './simplify';
export * from './straighten';
export * from './nearby';
