export * from './seeded';
