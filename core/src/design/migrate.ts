import { z } from 'zod';
import { EMPTY_BRIEF } from './brief.ts';
import { vehicleFromVersion1, vehicleFromVersion2 } from '../vehicle/migrate.ts';
import { OWN_CLOCK } from '../timing/step.ts';
import { LONGEST_LABEL } from './functions.ts';
import { STAGE_IDS, defaultControls } from './usualControls.ts';

const Loose = z.looseObject({});
type Loose = z.infer<typeof Loose>;

const listOf = (data: unknown): Loose[] => z.array(Loose).catch([]).parse(data);
const eachOf = (list: unknown, change: (item: Loose) => Loose): unknown =>
  Array.isArray(list) ? listOf(list).map(change) : list;
const textOf = (data: unknown): string => z.string().catch('').parse(data);
const objectOf = (data: unknown): Loose => Loose.catch({}).parse(data);

/**
 * Brings a document of an older schema version to the newest, one version at a time. What is wrong with it stays
 * wrong for the schema to name.
 */
export function migrate(data: unknown, version: number): unknown {
  const second = version < 2 ? fromVersion1(data) : data;
  const third = version < 3 ? fromVersion2(second) : second;
  const fourth = version < 4 ? fromVersion3(third) : third;
  const fifth = version < 5 ? fromVersion4(fourth) : fourth;
  const sixth = version < 6 ? fromVersion5(fifth) : fifth;
  const seventh = version < 7 ? fromVersion6(sixth) : sixth;
  const eighth = version < 8 ? fromVersion7(seventh) : seventh;
  const ninth = version < 9 ? fromVersion8(eighth) : eighth;
  const tenth = version < 10 ? fromVersion9(ninth) : ninth;
  const eleventh = version < 11 ? fromVersion10(tenth) : tenth;
  const twelfth = version < 12 ? fromVersion11(eleventh) : eleventh;
  const thirteenth = version < 13 ? fromVersion12(twelfth) : twelfth;
  const fourteenth = version < 14 ? fromVersion13(thirteenth) : thirteenth;
  return version < 15 ? fromVersion14(fourteenth) : fourteenth;
}

/** Version 2 brought the brief, bodies with options and own parts, own fixtures, files, and where a lamp comes from. */
function fromVersion1(data: unknown): unknown {
  const build = objectOf(data);
  if (!Array.isArray(build.placements)) return { ...build, schemaVersion: 2 };
  return {
    ...build,
    schemaVersion: 2,
    brief: EMPTY_BRIEF,
    fixtures: [],
    photometry: [],
    vehicle: {
      ...objectOf(build.vehicle),
      name: '',
      options: [],
      zones: [],
      solids: [],
      keepOuts: [],
      mesh: null,
      survey: { mayTie: {}, glass: {}, singleWall: {}, notes: '' },
    },
    placements: listOf(build.placements).map((p) => ({
      ...p,
      named: true,
      status: 'new',
      fixing: null,
      poleM: 0,
      text: '',
      ...(Array.isArray(p.modules)
        ? { modules: listOf(p.modules).map((m) => ({ ...m, insert: 'warning' })) }
        : {}),
    })),
  };
}

/** Version 3 brought own patterns, patterns for the night, clocks that follow each other, offsets and flashers. */
function fromVersion2(data: unknown): unknown {
  const build = objectOf(data);
  const timing = objectOf(build.timing);
  return {
    ...build,
    schemaVersion: 3,
    scene: [],
    fixtures: eachOf(build.fixtures, (f) => ({ ...f, flasher: null, volts: [12] })),
    placements: eachOf(build.placements, (p) => ({
      ...p,
      modules: eachOf(p.modules, (m) => ({ ...m, offsetMs: 0 })),
    })),
    timing: {
      ...timing,
      patterns: [],
      groups: eachOf(timing.groups, (g) => ({ ...g, ...OWN_CLOCK })),
      stages: eachOf(timing.stages, (stage) => ({
        ...stage,
        cues: eachOf(stage.cues, (cue) => ({ ...cue, nightPatternId: null })),
      })),
    },
  };
}

/** Kinds of rules that counted the light of all lamps before they could leave some out. */
const COUNTED_ALL = [
  'colour',
  'dark-gap',
  'flashes-a-second',
  'power-ceiling',
  'power-floor',
  'rhythms',
  'white-rear',
];

/**
 * Version 4 brought colours that take turns, factory lamps by what they are for, zones that face any way and move along,
 * reflective areas, lenses by colour, finishes, and lamps planned for later. Rules that may leave lamps out that are not
 * made to warn count them all, as they did.
 */
function fromVersion3(data: unknown): unknown {
  const build = objectOf(data);
  return {
    ...build,
    schemaVersion: 4,
    fixtures: eachOf(build.fixtures, (f) => ({
      ...f,
      coloursAtOnce: 1,
      ties: f.kind === 'factory' ? ['head', 'low beam', 'high beam', 'tail', 'reverse', 'fog', 'day'] : [],
      behindM: 0,
      panRangeDeg: 0,
      tiltRangeDeg: 0,
    })),
    placements: eachOf(build.placements, (p) => ({ ...p, lensByColour: {}, finish: 'black' })),
    rulePacks: eachOf(build.rulePacks, (pack) => ({
      ...pack,
      rules: eachOf(pack.rules, (rule) =>
        COUNTED_ALL.some((kind) => kind === rule.kind) ? { lamps: 'all', ...rule } : rule,
      ),
    })),
    vehicle: vehicleFromVersion1(build.vehicle),
  };
}

/**
 * Version 5 brought functions and controls: Off and the three stages become functions that a slide of four positions
 * switches, the level of a stage at night that of its cues. Nothing lights otherwise than before.
 */
function fromVersion4(data: unknown): unknown {
  const build = objectOf(data);
  const { stages, ...timing } = objectOf(build.timing);
  const usual = defaultControls();
  return {
    ...build,
    schemaVersion: 5,
    timing,
    fixtures: eachOf(build.fixtures, (f) => ({ ...f, sharedPower: false })),
    placements: eachOf(build.placements, (p) => ({
      ...p,
      stopsFor: [],
      modules: eachOf(p.modules, (m) => ({ ...m, disabled: [] })),
    })),
    scene: eachOf(build.scene, ({ stage, ...v }) => ({
      ...v,
      on: typeof stage === 'number' ? [STAGE_IDS[stage] ?? STAGE_IDS[0]] : stage,
    })),
    controls: {
      ...usual,
      functions: usual.functions.map((fn) => {
        const stage = listOf(stages)[STAGE_IDS.findIndex((id) => id === fn.id)] ?? {};
        const name = typeof stage.name === 'string' ? stage.name : fn.name;
        const cues = eachOf(stage.cues ?? [], (cue) => cueFromVersion4(cue, stage.nightLevel));
        return { ...fn, name, label: name.slice(0, LONGEST_LABEL), shows: [{ cues, dims: [], loads: [] }] };
      }),
    },
  };
}

function cueFromVersion4({ groupId, slot, ...cue }: Loose, nightLevel: unknown): Loose {
  return {
    ...cue,
    show: 'light',
    target: groupId === null ? { kind: 'ungrouped' } : { kind: 'group', groupId },
    ink: slot,
    nightLevel,
    phases: null,
    adds: false,
    dimmed: null,
  };
}

/**
 * Version 6 brought texts of message boards by function, aims and heights that lamps can be moved to, room for panels in
 * the cab, where inputs come from, and the panel that operators are used to.
 */
function fromVersion5(data: unknown): unknown {
  const build = objectOf(data);
  const controls = objectOf(build.controls);
  return {
    ...build,
    schemaVersion: 6,
    fixtures: eachOf(build.fixtures, (f) => ({ ...f, letterM: f.showsText === true ? 0.15 : 0 })),
    placements: eachOf(build.placements, (p) => ({
      ...p,
      text: typeof p.text === 'string' ? p.text.replaceAll(/\p{Control}/gu, ' ') : p.text,
      aims: [],
      heights: [],
    })),
    controls: {
      ...controls,
      functions: eachOf(controls.functions, (fn) => ({
        ...fn,
        shows: eachOf(fn.shows, (shown) => ({
          ...shown,
          cues: eachOf(shown.cues, (cue) => (cue.show === 'light' ? { ...cue, text: '' } : cue)),
        })),
      })),
      panels: eachOf(controls.panels, (panel) => ({ ...panel, cabPlaceId: null })),
      cabPlaces: [],
      triggers: [],
      oldPanel: [],
    },
  };
}

/**
 * Version 7 brought findings that are accepted, approvals of fixtures, where packs hold, and rules that ask for more than
 * a stage and look from other elevations.
 */
function fromVersion6(data: unknown): unknown {
  const build = objectOf(data);
  return {
    ...build,
    schemaVersion: 7,
    fixtures: eachOf(build.fixtures, (f) => ({ ...f, approvals: [] })),
    rulePacks: eachOf(build.rulePacks, packOfBefore),
    accepted: [],
  };
}

/** Version 8 brought approaches of the build's own, and sides in wishes about behaviour. */
const fromVersion7 = (data: unknown): unknown => ({ ...objectOf(data), schemaVersion: 8, approaches: [] });

/** Version 9 brought the side that traffic keeps to, and work places and eyes of the build's own. */
const fromVersion8 = (data: unknown): unknown => ({
  ...objectOf(data),
  schemaVersion: 9,
  traffic: 'right',
  workPlaces: [],
  eyes: [],
});

/** Version 10 brought work places with another outline than a rectangle. */
function fromVersion9(data: unknown): unknown {
  const build = objectOf(data);
  return {
    ...build,
    schemaVersion: 10,
    workPlaces: eachOf(build.workPlaces, ({ alongM, acrossM, ...place }) => ({
      ...place,
      shape: { kind: 'rectangle', alongM, acrossM },
    })),
  };
}

/** Version 11 brought wishes about patterns, levels and heads in two colours. */
const fromVersion10 = (data: unknown): unknown => ({ ...objectOf(data), schemaVersion: 11 });

/** Version 12 brought how much light surfaces throw back. */
const fromVersion11 = (data: unknown): unknown => ({ ...objectOf(data), schemaVersion: 12, finishes: [] });

/** Version 13 brought lamp sets by rule; those of before are fixed lists. */
function fromVersion12(data: unknown): unknown {
  const build = objectOf(data);
  const controls = objectOf(build.controls);
  return {
    ...build,
    schemaVersion: 13,
    controls: {
      ...controls,
      sets: eachOf(controls.sets, (set) => ({ ...set, rule: null, without: [] })),
    },
  };
}

/** Version 14 brought notes on lamps, lenses by module, equipment, and lamps and keep-outs found otherwise. */
function fromVersion13(data: unknown): unknown {
  const build = objectOf(data);
  return {
    ...build,
    schemaVersion: 14,
    vehicle: vehicleFromVersion2(build.vehicle),
    placements: eachOf(build.placements, (p) => ({
      ...p,
      notes: '',
      modules: eachOf(p.modules, (m) => ({ ...m, lens: null })),
    })),
  };
}

/** Version 15 brought ids of findings that keep what a finding is about apart; so do the accepted ones. */
function fromVersion14(data: unknown): unknown {
  const build = objectOf(data);
  const kinds = new Map(
    listOf(build.rulePacks).flatMap((pack) =>
      listOf(pack.rules).map((rule): [string, unknown] => [
        `${textOf(pack.id)}|${textOf(rule.id)}`,
        rule.kind,
      ]),
    ),
  );
  return {
    ...build,
    schemaVersion: 15,
    accepted: eachOf(build.accepted, (one) => ({
      ...one,
      id: typeof one.id === 'string' ? findingIdFromVersion14(one.id, kinds) : one.id,
    })),
  };
}

/** What a finding is about was one word with marks of several kinds between its parts. */
function findingIdFromVersion14(id: string, kinds: ReadonlyMap<string, unknown>): string {
  const at = id.lastIndexOf('|') + 1;
  const [packId = '', ruleId = ''] = id.split('|');
  const about = id.slice(at);
  return id.slice(0, at) + partsOf(about);

  function partsOf(text: string): string {
    // A label may hold any of the marks.
    if (packId === 'controls' && ruleId === 'labels') return text;
    if (text.startsWith(LEFT_OUT)) return `${partsOf(text.slice(LEFT_OUT.length))}|left out`;
    if (kinds.get(`${packId}|${ruleId}`) === 'work-light') return text.replace(' ', '|');
    return text.replaceAll(/[/+]/g, '|');
  }
}

const LEFT_OUT = 'left out: ';

/** A pack of its own file bears no version: what it leaves unsaid is as it was before it could be said. */
export const packOfBefore = (pack: Loose): Loose => ({
  jurisdictions: [],
  ...pack,
  rules: eachOf(pack.rules, (rule) => ({ when: null, elevationsDeg: [0], ...rule })),
});
