export * from './formulas';
