/** The boundaries of the house: core depends on nothing but itself and small pure libraries, and in it nothing lower on anything higher; web and server never on each other. Type imports count. */

/** The folders of core from the lowest up. `body` stands beside them, on `movement`, and `sight` on `body`. */
const LAYERS = [
  'schema',
  'movement',
  'client',
  'ladder',
  'coaching',
  'dosage',
  'progress',
  'planning',
  'session',
  'floor',
  'formats',
];
const TESTS = '\\.test\\.ts$|^core/src/test/';

export default {
  forbidden: [
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^core/src', pathNot: TESTS },
      to: { pathNot: '^core/src|node_modules/(zod|minisearch|papaparse|stemmer|fastest-levenshtein|syllable)/' },
    },
    ...LAYERS.map((layer, i) => ({
      name: `core-${layer}-is-below`,
      severity: 'error',
      from: { path: `^core/src/${layer}/`, pathNot: TESTS },
      to: { path: `^core/src/(${LAYERS.slice(i + 1).join('|') || 'nothing'})/` },
    })),
    {
      name: 'core-body-is-beside',
      severity: 'error',
      from: { path: '^core/src/body/', pathNot: TESTS },
      to: { path: '^core/src/', pathNot: '^core/src/(body|schema|movement|dosage)/' },
    },
    {
      name: 'core-sight-is-beside',
      severity: 'error',
      from: { path: '^core/src/sight/', pathNot: TESTS },
      to: { path: '^core/src/', pathNot: '^core/src/(sight|body|schema|dosage|movement)/' },
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
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'nothing-unresolved',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, pathNot: '\\.css$|^pdfmake/interfaces|^virtual:' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules|/dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.css'],
    },
  },
};
