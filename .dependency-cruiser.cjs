// Who may import whom. One rule a room: what it may reach inside src; everything else fails. The order inside core is a rule of its own.
const rooms = {
  core: ['core'],
  'kernel/assembly': ['kernel/assembly'],
  'kernel/host': ['kernel/host', 'kernel/assembly/layout', 'core'],
  formats: ['formats', 'core'],
  denoise: ['denoise', 'core'],
  contracts: ['contracts', 'core', 'formats/model/import-report', 'formats/model/recognition'],
  'server/config': ['server/config'],
  'server/store': ['server/store', 'server/config', 'core'],
  'server/files': ['server/files', 'server/store', 'server/config', 'core'],
  'server/jobs': ['server/jobs', 'server/store', 'server/config', 'core'],
  'server/tasks': [
    'server/tasks',
    'server/render',
    'server/jobs',
    'server/store',
    'server/files',
    'server/config',
    'kernel/host',
    'formats',
    'core'
  ],
  'server/render': [
    'server/render',
    'server/jobs',
    'server/store',
    'server/files',
    'server/config',
    'kernel/host',
    'formats',
    'denoise',
    'drawing',
    'core'
  ],
  'server/usecases': [
    'server/usecases',
    'server/render',
    'server/store',
    'server/files',
    'server/jobs',
    'server/config',
    'contracts',
    'formats',
    'core'
  ],
  ui: ['ui'],
  features: [
    'features',
    'ui',
    'contracts',
    'core',
    'kernel/host',
    'denoise',
    'formats/model/import-report',
    'formats/model/recognition'
  ],
  app: ['app', 'features', 'ui', 'contracts', 'core', 'server/usecases', 'server/files', 'server/config'],
  cli: [
    'cli',
    'contracts',
    'core',
    'kernel/host',
    'formats',
    'denoise',
    'server/usecases',
    'server/render',
    'server/files',
    'server/config'
  ],
  drawing: ['drawing', 'core', 'formats'],
  demo: ['demo', 'drawing', 'contracts', 'core', 'formats', 'server/usecases', 'server/files']
};
const CORE_ORDER = [
  ['units'],
  ['math'],
  ['color', 'sampling', 'catalogue'],
  ['geometry', 'materials', 'lights', 'camera', 'output'],
  ['scene', 'brief', 'film'],
  ['integrator', 'finishing', 'quality', 'job']
];

const test = '\\.test\\.js$';
module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: { pathNot: test }, to: { circular: true } },
    {
      name: 'nothing-unresolved',
      severity: 'error',
      from: { pathNot: test },
      to: { couldNotResolve: true, pathNot: '\\.css$|^@fontsource|^@gltf-transform|^three/examples' }
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^src/core/', pathNot: test },
      to: { dependencyTypes: ['npm', 'npm-dev', 'core'] }
    },
    ...Object.entries(rooms).map(([room, allowed]) => ({
      name: `room-${room.replace('/', '-')}`,
      severity: 'error',
      from: { path: `^src/${room}[./]`, pathNot: test },
      to: { path: '^src/', pathNot: allowed.map((a) => `^src/${a}([./]|$)`).join('|') }
    })),
    ...CORE_ORDER.slice(0, -1).map((layer, i) => ({
      name: `core-order-${layer[0]}`,
      severity: 'error',
      from: { path: `^src/core/(${layer.join('|')})/`, pathNot: test },
      to: {
        path: `^src/core/(${CORE_ORDER.slice(i + 1)
          .flat()
          .join('|')})/`
      }
    }))
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'node', 'default'],
      extensions: ['.js']
    }
  }
};
