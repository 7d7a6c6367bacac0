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
import { exportProgramme } from './exportProgramme.ts';
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
    what: 'The findings of the layout, the timing, the brief and all chosen rule packs, and of the controls over every state they can reach, each with the shortest way to it. Exit 0: nothing blocks; 1: something blocks.',
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
    what: 'The light seen from one direction over time: spans of each clock (ms, cd), optical power, effective intensity, longest dark gap below the threshold (40 cd unless said), and the worst over clocks that drift.',
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
    what: 'Who drives toward the vehicle, from where and in what air: seen from how far, needed to stop (m), time to spare (s), for normal eyes and for eyes that see red or green poorly; the least first. At dusk and at night from how far reflective areas alone are seen, all lamps off.',
    run: (args) => approach(readBuildFile(args.file), args),
  },
  {
    name: 'junction',
    call: 'FILE --stage N|--on ID,ID [--open PART,PART] [--corner "from=left,cornerBackM=4,cornerAsideM=5,eyeAlongM=30,eyeM=1.08,around=day,noticing=1"] [--json]',
    what: 'How far the nose still is before the line of one who crosses (m) when the light is first seen past a blind corner, all lamps together and lamp by lamp; what --corner leaves unsaid is as shown here.',
    run: (args) => junction(readBuildFile(args.file), args),
  },
  {
    name: 'ground',
    call: 'FILE --stage N|--on ID,ID [--open PART,PART] [--ambient day|night] [--grid M] [--csv|--json]',
    what: 'Horizontal illuminance on the ground (lx) by lamps that burn steadily, to 15 m beyond the body: mean, least, evenness of the places where people work; with --csv or --json every point of the grid (0.25 m unless said).',
    run: (args) => ground(readBuildFile(args.file), args),
  },
  {
    name: 'glare',
    call: 'FILE --stage N|--on ID,ID [--open PART,PART] [--ambient day|night] [--used-to CD_PER_M2] [--json]',
    what: 'Veiling luminance (cd/m²), threshold increment (%) and illuminance (lx) at eyes near the vehicle and of drivers 10 to 200 m off, at the highest instant and as a mean, for eyes used to so much (3000 cd/m² by day, 1 at night unless said); and what each function sends the driver’s eye.',
    run: (args) => glare(readBuildFile(args.file), args),
  },
  {
    name: 'veil',
    call: 'FILE --stage N|--on ID,ID [--open PART,PART] [--ambient day|night] [--visibility M] [--json]',
    what: 'What fog through which one sees so far (80 m unless said) throws back to the driver (cd/m²), with and without white, and by lamp.',
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
    what: 'The whole vehicle, or one lamp on it, in that state (the last stage unless said) as an IES LM-63 file: time mean, far away.',
    run: (args) => exportIes(readBuildFile(args.file), args),
  },
  {
    name: 'programme',
    call: 'FILE --programme OUT.csv',
    what: 'The functions with their cues as a table, strongest first, for whoever programmes the controller.',
    run: (args) => exportProgramme(readBuildFile(args.file), args),
  },
  {
    name: 'variant',
    call: 'FILE [--stage N] [--ambient day|night] [--json]',
    what: 'What a build comes to in its highest stage, or another, to be held against another build: light by face, least and mean, current, lamps, holes, time to fit, price, light for the money.',
    run: (args) => variant(readBuildFile(args.file), args),
  },
  {
    name: 'states',
    call: 'FILE [--json]',
    what: 'How many states the controls have, how many of them can be reached, how many different pictures these show; every input with its values.',
    run: (args) => states(readBuildFile(args.file), args.json),
  },
  {
    name: 'simulate',
    call: 'FILE --events "ignition=on, slide=2, b3=press, wait=5000"|--trial ID [--json]',
    what: 'Operates the controls, from rest, and says after each event what is on, what lights and why it did not happen.',
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
    'Bad input of any kind: one sentence, exit 2. `flarik COMMAND --help` says how one command is called.',
  ].join('\n');
