/** Arrows between folders: apps → devices, io → core → contract, and inside core only downwards. */
const core = (from, to) => ({
  name: `core-${from}-stays-below`,
  severity: 'error',
  from: { path: `^packages/core/src/${from}/` },
  to: { path: '^packages/core/src/', pathNot: `^packages/core/src/((${[from, ...to, 'cache'].join('|')})/|limits\\.ts$)` },
});

/** The rooms of the Bench, from below: each knows only those that stand before it. */
const BENCH = [
  ...[
    'documents',
    'commands',
    'compile',
    'editors',
    'images',
    'layout',
    'registry',
    'values',
    'code',
    'maps',
    'stage',
    'terms',
    'cost',
    'checks',
  ],
  ...['compare', 'history', 'lights', 'looking', 'outline', 'parameters', 'files', 'graph', 'parts', 'about', 'bar', 'page'],
];
const benchRoom = (room, index) => ({
  name: `bench-${room}-stays-below`,
  severity: 'error',
  from: { path: `^apps/bench/src/app/bench/${room}/` },
  to: { path: `^apps/bench/src/app/bench/(${[...BENCH.slice(index + 1).map((later) => `${later}/`), '[^/]+$'].join('|')})` },
});

module.exports = {
  forbidden: [
    ...BENCH.map(benchRoom),
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^packages/core/src' },
      to: { path: '^(packages/(devices|io)|apps|tests|scripts)/' },
    },
    {
      name: 'contract-stands-alone',
      severity: 'error',
      from: { path: '^packages/contract/src' },
      to: { path: '^(packages/(core|devices|io)|apps|tests|scripts)/' },
    },
    {
      name: 'contract-is-described-upwards',
      severity: 'error',
      from: { path: '^packages/contract/src/(schema|documents)/' },
      to: { path: '^packages/contract/src/messages/' },
    },
    { name: 'devices-know-only-core', severity: 'error', from: { path: '^packages/devices' }, to: { path: '^(packages/io|apps)/' } },
    { name: 'io-knows-only-core', severity: 'error', from: { path: '^packages/io' }, to: { path: '^(packages/devices|apps)/' } },
    {
      name: 'io-runs-in-pages',
      severity: 'error',
      from: { path: '^packages/io/src', pathNot: '^packages/io/src/node/' },
      to: { dependencyTypes: ['core'] },
    },
    { name: 'apps-do-not-mix', severity: 'error', from: { path: '^apps/([^/]+)/' }, to: { path: '^apps/', pathNot: '^apps/$1/' } },
    {
      name: 'library-and-bench-are-apart',
      severity: 'error',
      from: { path: '^apps/bench/src/app/(library|bench|jobs)/' },
      to: { path: '^apps/bench/src/app/(library|bench|jobs)/', pathNot: '^apps/bench/src/app/$1/' },
    },
    {
      name: 'shared-knows-no-page',
      severity: 'error',
      from: { path: '^apps/bench/src/app/shared/' },
      to: { path: '^apps/bench/src/app/(library|bench|jobs)/' },
    },
    { name: 'unresolved', severity: 'error', from: {}, to: { couldNotResolve: true, pathNot: '(comlink|karma)' } },
    core('ir', []),
    core('image', []),
    core('language', ['ir']),
    core('emit', ['ir', 'language', 'compile', 'catalogue', 'document']),
    core('field', ['ir', 'language', 'catalogue']),
    core('mesh', ['document', 'ir', 'language', 'catalogue', 'field']),
    core('document', []),
    core('scene', ['document']),
    core('device', ['emit']),
    core('catalogue', ['ir', 'language', 'document']),
    core('compile', ['ir', 'language', 'catalogue', 'document', 'field', 'image']),
    core('assist', ['ir', 'language', 'catalogue', 'compile', 'field']),
    core('fuzz', ['ir', 'language']),
    core('maps', ['document', 'image']),
    core('import', ['document', 'field', 'mesh']),
    core('demo', ['catalogue', 'compile', 'document', 'image', 'maps']),
    core('formats', ['document', 'image', 'mesh']),
    core('cost', ['ir', 'catalogue', 'compile', 'document', 'scene']),
    core('checks', ['catalogue', 'compile', 'cost', 'document', 'image', 'maps', 'mesh', 'scene']),
    core('frame', ['ir', 'emit', 'catalogue', 'compile', 'document', 'device', 'field', 'image', 'mesh', 'scene']),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(\\.spec\\.ts$|/dist/|\\.generated\\.ts$|/drizzle/)' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'default', 'types'] },
  },
};
