/** The boundaries of the house: core depends on nothing but itself and small pure libraries; web and server never on each other. */
export default {
  forbidden: [
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.test\\.ts$|^core/src/test/' },
      to: { pathNot: '^core/src|node_modules/(zod|minisearch|papaparse)/' },
    },
    { name: 'web-not-server', severity: 'error', from: { path: '^web' }, to: { path: '^server' } },
    // Its tests may: they try what the page computes with the library that ships.
    {
      name: 'web-not-library',
      severity: 'error',
      from: { path: '^web', pathNot: '\\.test\\.ts$' },
      to: { path: '^library' },
    },
    { name: 'server-not-web', severity: 'error', from: { path: '^(server|library)' }, to: { path: '^web' } },
    { name: 'library-not-server', severity: 'error', from: { path: '^library' }, to: { path: '^server' } },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    { name: 'nothing-unresolved', severity: 'error', from: {}, to: { couldNotResolve: true, pathNot: '\\.css$' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules|/dist/' },
    tsPreCompilationDeps: false,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.css'],
    },
  },
};
