// The arrows of the house: ui -> app -> workers -> media, core -> kernels; cli, server -> media, core.
const only = (from, ...to) => ({
  name: `${from}-reaches-only-${to.join('-') || 'itself'}`,
  severity: 'error',
  from: { path: `^src/${from}/`, pathNot: '\\.test\\.ts$' },
  to: { path: '^src/', pathNot: `^src/(${[from, ...to].join('|')})/` },
})

module.exports = {
  forbidden: [
    only('core'),
    only('media', 'core'),
    only('workers', 'media', 'core'),
    only('app', 'workers', 'media', 'core'),
    only('ui', 'app', 'workers', 'media', 'core'),
    only('cli', 'media', 'core'),
    only('server', 'media', 'core'),
    {
      name: 'core-is-pure',
      comment: 'No interface library, no Node built-in inside the computation.',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: { path: '(^node:)|react|redux|idb|hono|mediabunny|comlink', dependencyTypesNot: ['local'] },
    },
    {
      name: 'core-has-no-builtins',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'workers-need-no-validation',
      comment: 'Only what reads project files carries the library that validates them.',
      severity: 'error',
      from: { path: '^src/workers/(derive|export|render|sound)\\.worker' },
      to: { path: '^src/core/door/', reachable: true },
    },
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    exclude: { path: '^src/kernels/[^/]*\\.ts$' },
  },
}
