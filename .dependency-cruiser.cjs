/** Arrows go web → core, server → core, cli → core and demo, demo → core, and nowhere else. The scripts put the parts together. */
const only = (name, from, allowed) => ({
  name,
  severity: 'error',
  comment: `${from} may use ${allowed.length ? allowed.join(', ') : 'nothing of ours'} only`,
  // What tests stand on is theirs to choose.
  from: { path: `^${from}/src`, pathNot: '\\.test\\.tsx?$' },
  to: { path: '^(core|server|web|cli|demo|e2e|scripts|bench)/', pathNot: `^(${[from, ...allowed].join('|')})/` }
})

/** Core's rooms, floor by floor from the ground: what stands on one floor does not import each other, only what lies below. */
const floors = [
  ['values'],
  ['catalogue'],
  ['radio', 'secrets', 'address', 'labels'],
  ['record'],
  ['history', 'policy'],
  ['work/units'],
  ['work/addresses'],
  ['work/erasure'],
  ['work/plan'],
  ['work/channels'],
  ['work/cabling'],
  ['work/wifi'],
  ['work/configure'],
  ['work/prove'],
  ['work/run'],
  ['work/diagnose'],
  ['work/day'],
  ['rules'],
  ['agenda'],
  ['house', 'documents'],
  ['api'],
  ['calc']
]
const rooms = floors.flatMap((floor, at) =>
  floor.map((room) => ({
    name: `room-${room}`,
    severity: 'error',
    comment: `core/src/${room} imports lower floors only (docs/architecture.md)`,
    from: { path: `^core/src/${room}/` },
    to: { path: '^core/src/', pathNot: `^core/src/(${[room, ...floors.slice(0, at).flat()].join('|')})/` }
  }))
)
/** A file of core that stands in no room is on no floor. */
const everyRoom = {
  name: 'every-file-in-a-room',
  severity: 'error',
  from: { path: '^core/src/', pathNot: `^core/src/(${floors.flat().join('|')})/` },
  to: {}
}

module.exports = {
  forbidden: [
    only('core', 'core', []),
    only('server', 'server', ['core']),
    only('web', 'web', ['core']),
    only('cli', 'cli', ['core', 'demo']),
    only('demo', 'demo', ['core']),
    ...rooms,
    everyRoom,
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
