import { check } from './check.ts';
import { coverage } from './coverage.ts';
import { approach } from './approach.ts';
import { exportIes } from './exportIes.ts';
import { geometry } from './geometry.ts';
import { glare } from './glare.ts';
import { ground } from './ground.ts';
import { junction } from './junction.ts';
import { list } from './list.ts';
import { map } from './map.ts';
import type { Command } from './command.ts';
import { photometry } from './photometry.ts';
import { exportProgram } from './exportProgramme.ts';
import { readBuildFile } from './readFile.ts';
import { simulate } from './simulate.ts';
import { states } from './states.ts';
import { variant } from './variant.ts';
import { veil } from './veil.ts';
import { waveform } from './waveform.ts';

/** Every command there is. */
export const COMMANDS: readonly Command[] = [
  {
    name: 'check',
    call: 'FILE [--json]',
    what: 'Checks layout, timing, brief, rule packs and every reachable state of the controls. Each finding has its shortest sequence. Exit 0: nothing blocking; 1: blocking findings.',
    run: (args) => check(readBuildFile(args.file), args.json),
  },
  {
    name: 'coverage',
    call: 'FILE --stage N|--on ID,ID [--open PART,PART] [--ambient day|night] [--elevation DEG] [--colour COLOUR] [--json]',
    what: 'Effective intensity (cd) and optical power (cd·s/min) for each bearing 0 to 359.',
    run: (args) => coverage(readBuildFile(args.file), args),
  },
  {
    name: 'waveform',
    call: 'FILE --stage N|--on ID,ID --bearing DEG [--elevation DEG] [--colour COLOUR] [--open PART,PART] [--ambient day|night] [--threshold CD] [--json]',
    what: 'Light toward one direction over time: spans by clock (ms, cd), optical power, effective intensity, longest dark interval below the threshold (default 40 cd). Includes the worst alignment of drifting clocks.',
    run: (args) => waveform(readBuildFile(args.file), args),
  },
  {
    name: 'map',
    call: 'FILE --stage N|--on ID,ID [--open PART,PART] [--ambient day|night] [--colour COLOUR] [--quantity power|effective|peak] --json|--csv',
    what: 'The light toward every direction: elevations −30 to 60 every 2°, bearings 0 to 359; optical power (cd·s/min), effective intensity or peak (cd).',
    run: (args) => map(readBuildFile(args.file), args),
  },
  {
    name: 'approach',
    call: 'FILE --stage N|--on ID,ID [--open PART,PART] [--json]',
    what: 'Sight distance by approach: detection and stopping distance (m), margin (s), for normal, protan and deutan observers; smallest margin first. At dusk and night also the detection distance of reflective markings with all lamps off.',
    run: (args) => approach(readBuildFile(args.file), args),
  },
  {
    name: 'junction',
    call: 'FILE --stage N|--on ID,ID [--open PART,PART] [--corner "from=left,cornerBackM=4,cornerAsideM=5,eyeAlongM=30,eyeM=1.08,around=day,noticing=1"] [--json]',
    what: 'Junction: distance of the front bumper before the crossing line (m) when the light is first visible past a wall, all lamps together and lamp by lamp. Omitted --corner values default to those shown.',
    run: (args) => junction(readBuildFile(args.file), args),
  },
  {
    name: 'ground',
    call: 'FILE --stage N|--on ID,ID [--open PART,PART] [--ambient day|night] [--grid M] [--csv|--json]',
    what: 'Ground illuminance (lx) by steady lamps, to 15 m beyond the body: average, minimum and uniformity of work areas. With --csv or --json every grid point (default 0.25 m).',
    run: (args) => ground(readBuildFile(args.file), args),
  },
  {
    name: 'glare',
    call: 'FILE --stage N|--on ID,ID [--open PART,PART] [--ambient day|night] [--adaptation CD_PER_M2] [--json]',
    what: 'Glare: veiling luminance (cd/m²), threshold increment (%) and illuminance (lx), peak and average, at viewpoints near the vehicle and for drivers at 10 to 200 m. Default adaptation: 3000 cd/m² by day, 1 at night. Also the illuminance by function at the driver’s eye.',
    run: (args) => glare(readBuildFile(args.file), args),
  },
  {
    name: 'veil',
    call: 'FILE --stage N|--on ID,ID [--open PART,PART] [--ambient day|night] [--visibility M] [--json]',
    what: 'Fog backscatter at the driver’s eye (cd/m²), with and without white, and by lamp. Default visibility: 80 m.',
    run: (args) => veil(readBuildFile(args.file), args),
  },
  {
    name: 'geometry',
    call: 'FILE [--open PART,PART] --json',
    what: 'Solids as corners and faces, and every channel with place, aim and beam, in body axes (m; x forward, y left, z up).',
    run: (args) => geometry(readBuildFile(args.file), args),
  },
  {
    name: 'list',
    call: 'bodies|fixtures|zones|patterns [FILE] [--json]',
    what: 'The body types with their measures and options; the fixtures, with the build’s own; the vehicle’s zones; the flash patterns.',
    run: (args) => list(args.file, args.second === undefined ? null : readBuildFile(args.second), args.json),
  },
  {
    name: 'photometry',
    call: 'FILE.ies|FILE.ldt [--at H,V] [--upright] [--json]',
    what: 'What a photometric file says; intensity toward H (right) and V (up) of the module’s aim, degrees.',
    run: photometry,
  },
  {
    name: 'export',
    call: 'FILE --ies OUT [--stage N|--on ID,ID] [--open PART,PART] [--ambient day|night] [--lamp ID]',
    what: 'The whole vehicle or one lamp in that state (default: highest stage) as an IES LM-63 file: time average, far field.',
    run: (args) => exportIes(readBuildFile(args.file), args),
  },
  {
    name: 'program',
    call: 'FILE --program OUT.csv',
    what: 'Functions and cues as a table, highest priority first, for programming the controller.',
    run: (args) => exportProgram(readBuildFile(args.file), args),
  },
  {
    name: 'variant',
    call: 'FILE [--stage N] [--ambient day|night] [--json]',
    what: 'Totals of a build in its highest stage or another, for comparison: light by side (minimum, average), current, lamps, holes, fitting time, price, light per price.',
    run: (args) => variant(readBuildFile(args.file), args),
  },
  {
    name: 'states',
    call: 'FILE [--json]',
    what: 'Number of possible states, reachable states and output states of the controls, and every input with its values.',
    run: (args) => states(readBuildFile(args.file), args.json),
  },
  {
    name: 'simulate',
    call: 'FILE --events "ignition=on, slide=2, b3=press, wait=5000"|--test ID [--json]',
    what: 'Operates the controls from the initial state. After each event it lists active functions, lit lamps and excluded events.',
    run: (args) => simulate(readBuildFile(args.file), args),
  },
];

const entry = ({ name, call, what }: Command): string => `  flarik ${name} ${call}\n      ${what}`;

/** How one command, or all of them, are called. */
export const usageOf = (commands: readonly Command[]): string =>
  [
    'flarik: checks and figures of a build file, without a browser',
    '',
    ...commands.map(entry),
    '',
    'Invalid input: one sentence, exit 2. `flarik COMMAND --help` shows the options of a command.',
  ].join('\n');
