/** The floors of the core, bottom first: a file may import from its own floor and those below it. */
const FLOORS = [
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
  'proof',
];

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
    {
      name: 'steps-apart',
      comment:
        'a step of the work does not import another; what they share lies in editor, ui, drawing or frame',
      severity: 'error',
      from: { path: '^web/src/lib/steps/([^/]+)/' },
      to: { path: '^web/src/lib/steps/', pathNot: '^web/src/lib/steps/$1/' },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(build|\\.svelte-kit)/' },
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types'] },
  },
};
