/** The house: core ← contract ← server, web. A room of core is entered by its index only. */
module.exports = {
  forbidden: [
    {
      name: 'no-circular',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^core/src', pathNot: '\\.test\\.tsx?$' },
      to: { pathNot: '^core/src|node_modules/(zod|date-fns|@date-fns/tz|fastest-levenshtein)' },
    },
    {
      name: 'contract-imports-core',
      severity: 'error',
      from: { path: '^contract/src', pathNot: '\\.test\\.tsx?$' },
      to: { pathNot: '^(core|contract)/|node_modules/zod' },
    },
    { name: 'server-not-web', severity: 'error', from: { path: '^server/src' }, to: { path: '^web/' } },
    { name: 'web-not-server', severity: 'error', from: { path: '^web/src' }, to: { path: '^server/' } },
    {
      name: 'core-room-by-its-index',
      severity: 'error',
      from: { path: '^core/src/([^/]+)/' },
      to: { path: '^core/src/([^/]+)/', pathNot: '^core/src/($1/|[^/]+/index\\.ts$|[^/]+/testing/)' },
    },
    {
      name: 'rooms-by-their-face',
      severity: 'error',
      from: { path: '^(contract|server|web)/src', pathNot: '\\.test\\.tsx?$|/testing/' },
      to: { path: '^core/', pathNot: '^core/(src|dist)/[^/]+/index\\.(ts|js|d\\.ts)$' },
    },
    {
      name: 'ui-knows-no-store',
      severity: 'error',
      from: { path: '^web/src/ui/' },
      to: { path: '^web/src/', pathNot: '^web/src/ui/' },
    },
    {
      name: 'tests-stay-out',
      severity: 'error',
      from: { pathNot: '\\.test\\.tsx?$|/testing/' },
      to: { path: '\\.test\\.tsx?$|/testing/' },
    },
    { name: 'resolved', severity: 'error', from: {}, to: { couldNotResolve: true, pathNot: '^virtual:' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.check.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['source', 'import', 'types', 'node', 'default'],
    },
  },
};
