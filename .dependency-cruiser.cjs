/** Imports go one way: app -> core -> kernels; server -> core. In core: pool -> render -> effects and masks -> operations -> planes. */
module.exports = {
  forbidden: [
    {
      name: 'core-knows-nothing-above-it',
      severity: 'error',
      from: { path: '^core/src' },
      to: { path: '^(app|server|demo|bench|tests)/' },
    },
    {
      name: 'core-has-no-platform',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.test\\.ts$' },
      to: { path: '^(node:|react)|node_modules/(react|dexie|@mui)', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'engine-knows-no-document',
      severity: 'error',
      from: { path: '^core/src/(planes|graph|operations|photo|colour|optics|astronomy|weather)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/src/(model|effects|masks|render|measure|pool|codecs)/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'document-knows-no-rendering',
      severity: 'error',
      from: { path: '^core/src/(model|effects|masks)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/src/(render|measure|pool|codecs)/' },
    },
    {
      name: 'rendering-knows-no-threads',
      severity: 'error',
      from: { path: '^core/src/(render|measure|codecs)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/src/pool/' },
    },
    { name: 'kernels-know-nothing', severity: 'error', from: { path: '^kernels' }, to: { path: '^(core|app|server|demo|bench|tests)/' } },
    { name: 'app-and-server-are-apart', severity: 'error', from: { path: '^app' }, to: { path: '^(server|demo|bench|tests)/' } },
    { name: 'server-and-app-are-apart', severity: 'error', from: { path: '^server' }, to: { path: '^(app|demo|bench|tests)/' } },
    { name: 'demo-stands-alone', severity: 'error', from: { path: '^demo' }, to: { path: '^(app|server|core|bench|tests)/' } },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } } },
    {
      name: 'tests-are-not-imported',
      severity: 'error',
      from: { pathNot: '\\.test\\.ts$|test-support|^tests|^bench' },
      to: { path: '\\.test\\.ts$|test-support' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|build)/' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'default'] },
  },
}
