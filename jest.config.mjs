/** Unit and server tests run straight from the sources; the browser journeys are Playwright's (e2e/). */
const project = (name) => ({
  displayName: name,
  rootDir: `./${name}`,
  roots: ['<rootDir>/src'],
  testMatch: ['**/*.test.ts'],
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  moduleFileExtensions: ['js', 'mjs', 'cjs', 'ts', 'tsx', 'json', 'node'],
  transform: { '\\.tsx?$': '@swc/jest' },
  moduleNameMapper: {
    '^@waxwing/core/(.*)$': '<rootDir>/../core/src/$1/index.ts',
    '^@waxwing/library$': '<rootDir>/../library/src/index.ts',
    '^(\\.{1,2}/.*)\\.js$': '$1',
  },
});

export default {
  projects: ['core', 'body', 'library', 'server', 'web'].map(project),
  // A slow machine is not a fault: a test fails by what it finds, and only a hang runs into this.
  testTimeout: 60_000,
  maxWorkers: '100%',
};
