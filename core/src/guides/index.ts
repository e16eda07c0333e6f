export * from './guide';
export * from './ticks';
