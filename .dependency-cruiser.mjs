/** The floors of the core, bottom first: a file may import from its own floor and those below it. */
export const FLOORS = [
  'words',
  'geometry',
  'fixture',
  'vehicle',
  'timing',
  'design',
  'resolve',
  'controls',
  'arrange',
  'state',
  'coverage',
  'sight',
  'rules',
  'verification',
];

/** The floors of the interface, bottom first; the steps of the work stand on top, beside each other. */
export const WEB_FLOORS = ['ui', 'workers', 'editor', 'pieces', 'sheet', 'frame'];
export const STEPS = [
  'brief',
  'builds',
  'controls',
  'layout',
  'view3d',
  'rules',
  'timing',
  'vehicle',
  'visibility',
];
const LIB = '^web/src/lib';

const above = (/** @type {number} */ floor) => `^core/src/(${FLOORS.slice(floor + 1).join('|')})/`;
const TESTS = '\\.test\\.ts$|\\.testing\\.ts$|^core/test/';

/** @type {import('dependency-cruiser').IConfiguration} */
export default {
  forbidden: [
    ...FLOORS.slice(0, -1).map((name, floor) => ({
      name: `nothing-above-${name}`,
      comment: `core/src/${name} knows nothing of the floors above it`,
      severity: /** @type {const} */ ('error'),
      from: { path: `^core/src/${name}/`, pathNot: TESTS },
      to: { path: above(floor) },
    })),
    {
      name: 'no-circle',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'core-is-below',
      severity: 'error',
      from: { path: '^core/src/' },
      to: { path: '^(web|cli|scripts)/' },
    },
    {
      name: 'core-is-pure',
      comment: 'the core needs zod alone, and nothing of Node',
      severity: 'error',
      from: { path: '^core/src/', pathNot: TESTS },
      to: { dependencyTypes: ['npm', 'npm-dev', 'core'], pathNot: 'node_modules/zod/' },
    },
    {
      name: 'cli-on-core',
      severity: 'error',
      from: { path: '^cli/src/' },
      to: { path: '^web/' },
    },
    ...WEB_FLOORS.map((name, floor) => ({
      name: `nothing-above-${name}-in-web`,
      comment: `web/src/lib/${name} knows nothing of the floors above it`,
      severity: /** @type {const} */ ('error'),
      from: { path: `${LIB}/${name}/` },
      to: { path: `${LIB}/(${[...WEB_FLOORS.slice(floor + 1), ...STEPS].join('|')})/` },
    })),
    {
      name: 'steps-apart',
      comment: 'a step of the work does not import another; what they share lies on a floor below',
      severity: 'error',
      from: { path: `${LIB}/(${STEPS.join('|')})/` },
      to: { path: `${LIB}/(${STEPS.join('|')})/`, pathNot: `${LIB}/$1/` },
    },
    {
      name: 'api-by-itself',
      comment: 'what both sides of the wire know imports no room of either',
      severity: 'error',
      from: { path: `${LIB}/[^/]+\\.ts$` },
      to: { path: `${LIB}/[^/]+/` },
    },
    {
      name: 'server-by-itself',
      comment: 'nothing that runs in the browser imports the server',
      severity: 'error',
      from: { path: `${LIB}/`, pathNot: `${LIB}/server/` },
      to: { path: `${LIB}/server/` },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(build|\\.svelte-kit)/' },
    tsConfig: { fileName: 'tsconfig.imports.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types'] },
  },
};
