/** Arrows go web → core, server → core, cli → core and demo, demo → core, and nowhere else. The scripts put the parts together. */
const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  comment: `${from} may use ${allowed.length ? allowed.join(', ') : 'nothing of ours'} only`,
  from: { path: `^${from}/src` },
  to: { path: '^(core|server|web|cli|demo|e2e|scripts|bench)/', pathNot: `^(${[from, ...allowed].join('|')})/` }
})

module.exports = {
  forbidden: [
    only('core', 'core', []),
    only('server', 'server', ['core']),
    only('web', 'web', ['core']),
    only('cli', 'cli', ['core', 'demo']),
    only('demo', 'demo', ['core']),
    { name: 'core-is-pure', severity: 'error', from: { path: '^core/src' }, to: { dependencyTypes: ['core'] } },
    {
      name: 'no-circles',
      severity: 'error',
      from: { path: '^(core|server|web|cli|demo)/src' },
      to: { circular: true, dependencyTypesNot: ['type-only'] }
    },
    {
      name: 'resolves',
      severity: 'error',
      from: { path: '^(core|server|web|cli|demo|scripts)' },
      to: { couldNotResolve: true, pathNot: '^pdfmake/interfaces$' }
    }
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(node_modules/(?!@pasado)|dist|\\.data)' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.css', '.json']
    }
  }
}
