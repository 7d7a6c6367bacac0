import type { Condition } from '../design/condition.ts';
import {
  addFunction,
  changeFunction,
  controlsFailure,
  putPanel,
  withControls,
} from '../design/controlEdits.ts';
import { stagesOf } from '../design/controls.ts';
import { lightCue, newFunction, shown } from '../design/functions.ts';
import type { Control, Panel } from '../design/panel.ts';
import type { Build } from '../design/schema.ts';
import { SLIDE } from '../design/usualControls.ts';
import { button, freeId, freePlace } from './panelEdits.ts';
import { layLeadingPanel, applyRearPanel } from './rearPanel.ts';
import { all, is, rearClosed } from './templates/kit.ts';
import { FUNCTION_TEMPLATES } from './templates/functionTemplates.ts';
import { anyMeets, inColour, shining, withRuledSet } from './lampSets.ts';

/** A whole way to operate a vehicle, laid with one undo and then changed. */
export interface ControlTemplate {
  readonly id: string;
  readonly name: string;
  readonly what: string;
  readonly applyTemplate: (build: Build) => Build;
}

/** Why a template cannot be laid on a build; null when it can. */
export function templateMisfit({ applyTemplate: lay }: ControlTemplate, build: Build): string | null {
  const laid = lay(build);
  if (laid === build) return 'it already exists, or functions it needs are missing';
  return controlsFailure(laid) === null
    ? null
    : 'existing functions, tests or requirements use a control or stage that it would remove';
}

/** Lays those of the ready functions that fit; the others are left out. */
const layReady = (build: Build, ids: readonly string[]): Build =>
  ids.reduce((b, id) => {
    const ready = FUNCTION_TEMPLATES.find((f) => f.id === id);
    return ready?.misfit(b) === null ? ready.applyTemplate(b) : b;
  }, build);

const SIGNALS = ['reverse-white', 'brake-red', 'turn-dark'];

/** Keys up to a number; places that no function needs stay spare, and in sight. */
function withSpares(build: Build, panelId: string, keys: number): Build {
  const panel = build.controls.panels.find((p) => p.id === panelId);
  if (panel === undefined) return build;
  const there = panel.controls.filter((c) => c.kind === 'button' || c.kind === 'spare').length;
  return Array.from({ length: Math.max(0, keys - there) }).reduce<Build>((b) => {
    const now = b.controls.panels.find((p) => p.id === panelId) ?? panel;
    const at = freePlace(now);
    if (at === null) return b;
    const spare: Control = {
      kind: 'spare',
      id: freeId(b, 'spare'),
      label: '',
      ...at,
      twinOf: null,
      backlit: false,
    };
    return putPanel(b, { ...now, controls: [...now.controls, spare] });
  }, build);
}

const firstPanelId = (build: Build): string => build.controls.panels[0]?.id ?? '';

/** Every function but signals asks for the ignition. */
const byIgnition = (build: Build): Build =>
  withControls(build, { enabledBy: { kind: 'is', input: 'ignition', values: ['on'] } });

/** Each stage by a condition of its own. */
const stagesWhile = (build: Build, conditionOf: (place: number) => Condition): Build =>
  stagesOf(build).reduce(
    (b, { id }, place) =>
      changeFunction(b, id, {
        when: { way: 'while', condition: conditionOf(place), afterMs: 0, staysMs: 0 },
        choiceId: null,
      }),
    build,
  );

/** Puts another control in the place of the slide; what asked for the slide must be changed besides. */
function replaceSlide(build: Build, controls: readonly Control[], panel: Partial<Panel>): Build {
  const there = build.controls.panels.find((p) => p.controls.some((c) => c.id === SLIDE));
  if (there === undefined) return build;
  const kept = there.controls.filter((c) => c.id !== SLIDE).map((c) => ({ ...c, row: c.row + 1 }));
  return putPanel(build, { ...there, ...panel, controls: [...controls, ...kept] });
}

export const CONTROL_TEMPLATES: readonly ControlTemplate[] = [
  {
    id: 'slide-eight',
    name: 'Slide and eight keys',
    what: 'A slide for the stages, eight keys: white, fog cancel, alleys, scene, siren, the rest spare; reverse, brake and turn as signals; a supplement under the hatch.',
    applyTemplate: (build) =>
      withSpares(
        layReady(byIgnition(build), [
          'white-override',
          'fog-cancel',
          'alley',
          'scene',
          'siren',
          'hatch-supplement',
          ...SIGNALS,
        ]),
        firstPanelId(build),
        8,
      ),
  },
  {
    id: 'six-keys',
    name: 'Six keys',
    what: 'A key for each stage, of which one is on at a time, and three more; no slide.',
    applyTemplate: (build) => {
      const stages = stagesOf(build).filter(({ mode }) => mode !== 0);
      const keys = stages.map(({ id, name }, i) =>
        button(freeId(build, `key-${id}`), name, { page: 1, column: 1 + i, row: 1 }, id),
      );
      const replaced = replaceSlide(build, keys, {});
      if (replaced === build) return build;
      const off = stagesOf(build).filter(({ mode }) => mode === 0);
      const cued = stages.reduce(
        (b, { id }, i) =>
          changeFunction(b, id, {
            when: {
              way: 'latched',
              sets: [],
              clears: [],
              toggles: [{ kind: 'press', control: keys[i]?.id ?? '', press: 'short' }],
              timeoutMs: 0,
            },
            choiceId: 'stages',
          }),
        replaced,
      );
      const none: Condition = {
        kind: 'not',
        of: { kind: 'any', of: stages.map(({ id }): Condition => ({ kind: 'on', functionId: id })) },
      };
      const quiet = off.reduce(
        (b, { id }) =>
          changeFunction(b, id, { when: { way: 'while', condition: none, afterMs: 0, staysMs: 0 } }),
        cued,
      );
      return withSpares(
        layReady(byIgnition(quiet), ['white-override', 'fog-cancel', 'scene', ...SIGNALS]),
        firstPanelId(build),
        6,
      );
    },
  },
  {
    id: 'dash-switch',
    name: 'One old dash switch',
    what: 'A pull switch of three positions drives the stages through relays; two places beside it stay spare.',
    applyTemplate: (build) => {
      const pull: Control = {
        kind: 'pull',
        id: freeId(build, 'dash-switch'),
        label: 'Beacons',
        page: 1,
        column: 1,
        row: 1,
        twinOf: null,
        backlit: false,
        values: ['in', 'half', 'out'],
      };
      const at = (values: string[]): Condition => ({ kind: 'is', input: pull.id, values });
      const replaced = replaceSlide(build, [pull], { name: 'Old dash switch', place: 'dash' });
      if (replaced === build) return build;
      const places = [['in'], ['half'], ['out'], []];
      const stages = stagesOf(replaced);
      // What the switch cannot reach goes: a function that can never be on would only confuse.
      const unreached = stages.filter((_, i) => (places[i] ?? []).length === 0).map(({ id }) => id);
      const left = withControls(replaced, {
        functions: replaced.controls.functions.filter(({ id }) => !unreached.includes(id)),
      });
      const switched = stagesWhile(left, (place) => at(places[place] ?? ['in']));
      // Its relays are fed by the battery: it goes on with the key off, as people who use one expect.
      const stays = stagesOf(switched).reduce(
        (b, { id }) => changeFunction(b, id, { mayStay: true, withoutMaster: true }),
        switched,
      );
      return withSpares(stays, firstPanelId(build), 2);
    },
  },
  {
    id: 'rear-panel',
    name: 'Second panel at the rear',
    what: 'Twins of the switches and keys there are, at the rear desk: the one moved last counts.',
    applyTemplate: applyRearPanel,
  },
  {
    id: 'leading-panel',
    name: 'Rear switch that leads',
    what: 'A separate stage switch at the rear desk. It overrides the slide, except in position “front”.',
    applyTemplate: layLeadingPanel,
  },
  {
    id: 'siren-pedestal',
    name: 'Pedestal for a siren',
    what: 'The slide gets a last position that adds the siren to the last stage, while the rear is closed.',
    applyTemplate: (build) => {
      const panel = build.controls.panels.find((p) => p.controls.some((c) => c.id === SLIDE));
      const slide = panel?.controls.find((c) => c.id === SLIDE);
      const last = stagesOf(build).at(-1);
      if (panel === undefined || slide?.kind !== 'slide' || last === undefined) return build;
      if (slide.values.includes('siren') || slide.values.length > 7) return build;
      const at = slide.values.at(-1) ?? '';
      const longer = putPanel(build, {
        ...panel,
        place: 'pedestal',
        name: 'Pedestal',
        controls: panel.controls.map((c) =>
          c.id === SLIDE ? { ...slide, values: [...slide.values, 'siren'] } : c,
        ),
      });
      const loads = longer.controls.loads.some((l) => l.id === 'siren')
        ? longer.controls.loads
        : [...longer.controls.loads, { id: 'siren', name: 'Siren', values: ['off', 'wail', 'yelp'] }];
      const stays = changeFunction(withControls(longer, { loads }), last.id, {
        when: {
          way: 'while',
          condition: { kind: 'is', input: SLIDE, values: [at, 'siren'] },
          afterMs: 0,
          staysMs: 0,
        },
      });
      return addFunction(
        byIgnition(stays),
        newFunction(
          freeId(stays, 'slide-siren'),
          'Siren by the slide',
          'load',
          {
            way: 'while',
            condition: all(is(SLIDE, 'siren'), ...rearClosed(build)),
            afterMs: 0,
            staysMs: 0,
          },
          [],
          { shows: [shown([], { loads: [{ loadId: 'siren', value: 'wail' }] })] },
        ),
      );
    },
  },
  {
    id: 'white-auto',
    name: 'School: white separately',
    what: 'In drive the inner half of the highest forward white flashes in the last stage; it goes in park, and fog cancel takes it.',
    applyTemplate: (build) => {
      const last = stagesOf(build).at(-1);
      const clauses = [inColour('white'), shining('front')];
      if (last === undefined || !anyMeets(build, clauses)) return build;
      const { build: withSet, set } = withRuledSet(build, 'white-by-itself', 'White only', clauses, 'inner');
      if (build.controls.functions.some(({ id }) => id === 'white-auto')) return build;
      const cancel = layReady(withSet, ['fog-cancel']);
      const stage = cancel.controls.functions.findIndex((f) => f.kind === 'stage');
      return addFunction(
        cancel,
        newFunction(
          'white-auto',
          'White in drive',
          'warning',
          {
            way: 'while',
            condition: {
              kind: 'all',
              of: [
                { kind: 'on', functionId: last.id },
                { kind: 'is', input: 'gear', values: ['drive'] },
              ],
            },
            afterMs: 0,
            staysMs: 0,
          },
          [lightCue({ kind: 'set', setId: set.id }, 'white', 'single')],
        ),
        stage,
      );
    },
  },
  {
    id: 'white-by-hand',
    name: 'School: white by hand',
    what: 'White ahead comes by its key alone.',
    applyTemplate: (build) => layReady(build, ['white-override', 'fog-cancel']),
  },
];
