// One project of the tests, and of it the folders that STYLET_MUTATED names: what is to notice a mutation there.
import config from '../../jest.config.mjs';

const [project, ...folders] = process.env.STYLET_MUTATED.split(' ');
const chosen = config.projects.find(({ displayName }) => displayName === project);
export default {
  ...chosen,
  testTimeout: config.testTimeout,
  testMatch: folders.map((folder) => `<rootDir>/src/${folder}/**/*.test.ts`),
};
