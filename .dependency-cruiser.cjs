/** The layer rule of docs/architecture.md: core <- contract <- server and web; core modules only through their index. */
module.exports = {
  forbidden: [
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'core-stands-alone',
      severity: 'error',
      from: { path: '^packages/core/src', pathNot: '[.]test[.]ts$' },
      to: { pathNot: '^packages/core/src' },
    },
    {
      name: 'contract-knows-core-only',
      severity: 'error',
      from: { path: '^packages/contract/src', pathNot: '[.]test[.]ts$' },
      to: { pathNot: ['^packages/(core|contract)/src', 'node_modules/zod'] },
    },
    { name: 'server-not-web', severity: 'error', from: { path: '^apps/server' }, to: { path: '^apps/web' } },
    { name: 'web-not-server', severity: 'error', from: { path: '^apps/web' }, to: { path: '^apps/server' } },
    {
      name: 'modules-by-their-index',
      comment: 'One core module reaches another through its index only.',
      severity: 'error',
      from: { path: '^packages/core/src/([^/]+)/' },
      to: { path: '^packages/core/src/([^/]+)/', pathNot: ['^packages/core/src/$1/', '/index[.]ts$'] },
    },
    {
      name: 'not-own-index',
      comment: 'Inside a module, import the file itself.',
      severity: 'error',
      from: { path: '^packages/core/src/([^/]+)/', pathNot: '[.]test[.]ts$' },
      to: { path: '^packages/core/src/$1/index[.]ts$' },
    },
    {
      name: 'web-features-apart',
      comment: 'A screen does not import another screen; shared parts live in ui, elevation, data and shell.',
      severity: 'error',
      from: { path: '^apps/web/src/features/([^/]+)/' },
      to: { path: '^apps/web/src/features/([^/]+)/', pathNot: '^apps/web/src/features/$1/' },
    },
    {
      name: 'server-areas-by-queries',
      comment:
        'SQL lives in queries files and the database folder; what runs in a thread has a connection of its own.',
      severity: 'error',
      from: {
        path: '^apps/server/src/',
        pathNot: ['queries[.]ts$', '/database/', '-worker[.]ts$', '/main[.]ts$', '/demo/', 'app[.]ts$'],
      },
      to: { path: 'node_modules/pg/', dependencyTypesNot: ['type-only'] },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist/' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.json'],
    },
  },
}
