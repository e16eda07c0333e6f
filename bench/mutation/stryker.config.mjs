// Settings of the mutation tool; what is mutated comes from bench/mutation.ts.
export default {
  testRunner: 'jest',
  plugins: ['@stryker-mutator/jest-runner'],
  jest: { configFile: 'bench/mutation/jest.config.mjs', enableFindRelatedTests: false },
  coverageAnalysis: 'perTest',
  mutate: process.env.STYLET_MUTATE.split(' '),
  // Words for people are not behaviour.
  mutator: { excludedMutations: ['StringLiteral'] },
  ignorePatterns: ['.data', '**/dist', '.angular', 'docs', 'e2e', 'faults', 'test-results'],
  ignoreStatic: true,
  concurrency: 2,
  timeoutMS: 20_000,
  reporters: ['json', 'clear-text'],
  jsonReporter: { fileName: process.env.STYLET_MUTATION_REPORT },
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false },
  tempDirName: process.env.STYLET_MUTATION_FOLDER,
  checkers: [],
  thresholds: { high: 85, low: 70, break: null },
};
