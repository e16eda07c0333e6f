/** What has its types checked; those of demo, e2e, bench and faults are one: what they share is looked at once. */
export const typeProjects = [
  'core',
  'server',
  'tsconfig.programs.json',
  'tsconfig.tests.json',
  'web/tsconfig.worker.json',
  'web/tsconfig.tests.json',
];

/** Several times as fast as the one Angular builds with, which has the same command. */
export const compiler = 'node_modules/typescript-native/bin/tsc';
