/** The checks that need no running application, each a command that fails when something is wrong. */

/** @typedef {{ name: string, command: string, args: string[] }} Check */

/** The first builds what the others read. @type {readonly [Check, ...Check[]]} */
export const CHECKS = [
  { name: 'types', command: 'npx', args: ['tsc', '-b'] },
  { name: 'types of the page', command: 'npx', args: ['tsc', '-p', 'web'] },
  { name: 'types of the tests', command: 'npx', args: ['tsc', '-p', 'tsconfig.test.json'] },
  { name: 'types of the scripts', command: 'npx', args: ['tsc', '-p', 'tsconfig.scripts.json'] },
  { name: 'lint', command: 'npx', args: ['eslint', '.', '--max-warnings', '0'] },
  { name: 'format', command: 'npx', args: ['prettier', '--check', '--log-level', 'warn', '.'] },
  {
    name: 'boundaries',
    command: 'npx',
    args: ['depcruise', 'core/src', 'body/src', 'library/src', 'server/src', 'web/src'],
  },
  { name: 'spelling', command: 'npx', args: ['cspell', 'lint', '--no-progress', '--no-summary'] },
  { name: 'content', command: 'node', args: ['library/dist/check.js'] },
];
