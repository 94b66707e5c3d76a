/** The import rules of docs/architecture.md. */
const notTests = '\\.test\\.ts$';
module.exports = {
  forbidden: [
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^core', pathNot: notTests },
      to: {
        pathNot:
          '^(core|node_modules/(yup|saxes|xmlchars|fflate|fast-png|iobuffer|uuid|property-expr|tiny-case|toposort|lcms-wasm|lru-cache|fast-deep-equal|jsonc-parser|@xmldom/xmldom))',
      },
    },
    {
      name: 'core-is-tested-by-itself',
      comment: 'what the demo is made of may change; what the core is tested with may not change with it',
      severity: 'error',
      from: { path: '^core' },
      to: { path: '^(demo|server|ui|cli)' },
    },
    {
      name: 'ui-and-workers-have-no-data-access',
      severity: 'error',
      from: { path: '^(ui|browser-workers)' },
      to: { path: '^(server|agent|standins|demo|cli)' },
    },
    {
      name: 'agent-imports-core-alone',
      severity: 'error',
      from: { path: '^agent', pathNot: notTests },
      to: { path: '^(server|app|ui|standins|demo|cli|browser-workers|processes|benchmarks)' },
    },
    {
      name: 'standins-share-no-code',
      severity: 'error',
      from: { path: '^standins' },
      to: { path: '^(core|server|app|ui|agent|demo|cli|browser-workers|processes|benchmarks)' },
    },
    {
      name: 'app-is-thin',
      comment: 'no SQL and no computation in routes and pages',
      severity: 'error',
      from: { path: '^app' },
      to: { path: '^(core/(look|preset|color|sync)|server/db|node_modules/pg/)' },
    },
    {
      name: 'no-circular',
      comment: 'types may go round: nothing of them is there when the program runs',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    { name: 'no-unresolvable', severity: 'error', from: {}, to: { couldNotResolve: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '^(\\.next|dist|e2e/\\.out)' },
    tsPreCompilationDeps: 'specify',
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
