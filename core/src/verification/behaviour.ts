import { FACE_BEARINGS } from '../coverage/sectors.ts';
import type { Condition } from '../design/condition.ts';
import { readOn, effectsOf, type ActiveFunction } from '../design/controls.ts';
import { targetKey, type Target } from '../design/functions.ts';
import { lensPasses } from '../design/placement.ts';
import type { Build, ModuleRef } from '../design/schema.ts';
import { highestCd, type Drive } from '../resolve/channels.ts';
import { membersOf } from '../resolve/setMembers.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { BehaviourRequirement } from '../rules/brief/requirements/behaviour.ts';
import { BRIEF_PACK } from '../rules/heads.ts';
import { behaviourRule } from '../rules/kinds/behaviour.ts';
import { conditionOf, applicableRules } from '../rules/registry.ts';
import { LEVEL_DEG, Situation } from '../rules/situation.ts';
import { stateWith } from '../state/state.ts';
import type { Face } from '../words/face.ts';

/** What a wish or a rule of a pack says that lamps, functions or outputs must, must never or can do. */
export interface Behaviour extends Pick<
  BehaviourRequirement,
  'says' | 'subject' | 'is' | 'atLeast' | 'patternId' | 'mostLevel' | 'withinS' | 'unless'
> {
  readonly packId: string;
  readonly id: string;
  /** What must be so for it to speak; null where it always does. */
  readonly when: Condition | null;
  /** Lamps made to warn alone count. */
  readonly warningOnly: boolean;
}

/** What the wishes of the brief, and rules of packs that hold here, say of behaviour. */
export const behavioursIn = (build: Build): Behaviour[] => [
  ...build.brief.constraints.flatMap((data): Behaviour[] =>
    data.kind === 'behaviour'
      ? [{ ...BehaviourRequirement.parse(data), packId: BRIEF_PACK, warningOnly: false }]
      : [],
  ),
  ...applicableRules(build).flatMap(({ pack, rule: data }): Behaviour[] => {
    const rule = behaviourRule.of(data);
    if (rule === null) return [];
    const { id, says, is, moduleCount: atLeast, colours, faces } = rule;
    const unasked = { patternId: null, mostLevel: null, withinS: null, unless: null };
    const head = { packId: pack.id, id, says, is, atLeast, ...unasked };
    const when = conditionOf(build, pack, data);
    return [
      {
        ...head,
        when,
        subject: { kind: 'lamps', target: null, colours, faces },
        warningOnly: rule.lamps === 'warning',
      },
    ];
  }),
];

/** Levels that are multiplied differ from those that are typed by less. */
const LEVEL_ROUNDING = 1e-9;

/** A lamp lights a side to which it sends more than this at some bearing, cd. */
const LIGHTS_CD = 10;

/** Judges whether a behaviour is so, given what is on and what lights. */
export class BehaviourJudge {
  readonly #build: Build;
  readonly #shares = new Map<string, number>();
  readonly #members = new Map<string, ReadonlySet<string>>();

  constructor(build: Build) {
    this.#build = build;
  }

  /** Whether a behaviour speaks of a module at all. */
  concerns({ subject }: Behaviour, module: ModuleRef): boolean {
    return subject.kind === 'lamps' && (subject.target === null || this.#holds(subject.target, module));
  }

  /** Whether a channel at work is one of those that a behaviour speaks of: by module, colour, purpose and side. */
  counts(behaviour: Behaviour, drive: Drive): boolean {
    const { subject, warningOnly } = behaviour;
    if (subject.kind !== 'lamps' || !this.concerns(behaviour, drive)) return false;
    const { colours, faces } = subject;
    return (
      drive.spans.length > 0 &&
      (colours.length === 0 || colours.includes(drive.colour)) &&
      (drive.warns || !warningOnly) &&
      (faces.length === 0 || faces.some((face) => this.#lights(drive, face)))
    );
  }

  /**
   * Whether what a behaviour speaks of is as it says.
   * @param drives - the channels at work that count for it
   */
  isSo(behaviour: Behaviour, on: readonly ActiveFunction[], drives: readonly Drive[]): boolean {
    const { subject, is, atLeast, patternId } = behaviour;
    switch (subject.kind) {
      case 'function':
        return on.some((one) => readOn(one).id === subject.functionId) === (is === 'on');
      case 'load':
        return this.#loadRuns(on, subject.loadId) === (is === 'on');
      case 'lamps':
        switch (is) {
          case 'dark':
            return drives.length === 0;
          case 'flashing':
            return modulesOf(drives.filter((d) => !d.steady)) >= atLeast;
          case 'steady':
            return modulesOf(drives.filter((d) => d.steady)) >= atLeast;
          case 'in pattern':
            return modulesOf(drives) >= atLeast && drives.every((d) => d.patternId === patternId);
          case 'at most':
            return drives.every((d) => this.isDimmedTo(behaviour, d));
          case 'in two colours':
            return inTwoColours(drives) >= atLeast;
          case 'lit':
          case 'on':
          case 'off':
            return modulesOf(drives) >= atLeast;
        }
    }
  }

  /** Whether a channel at work gives no more than the level that a behaviour allows. */
  isDimmedTo({ mostLevel }: Behaviour, drive: Drive): boolean {
    return this.#levelOf(drive) <= (mostLevel ?? 1) + LEVEL_ROUNDING;
  }

  /** How much of its full light a channel at work gives at its brightest, 0 to 1. */
  #levelOf(drive: Drive): number {
    const p = this.#build.placements.find(({ id }) => id === drive.placementId);
    const setup = p?.modules.find(({ id }) => id === drive.moduleId);
    if (p === undefined || setup === undefined) return 0;
    const lookup = lookupOf(this.#build);
    const full = lookup.outputs(lookup.fixture(p.fixtureId), setup)[drive.colour]?.peakCd ?? 0;
    const lens = lensPasses(p, setup, drive.colour);
    return full * lens === 0 ? 0 : highestCd(drive) / (full * lens);
  }

  #holds(target: Target, { placementId, moduleId }: ModuleRef): boolean {
    const key = targetKey(target);
    const known = this.#members.get(key) ?? membersOf(this.#build, target);
    this.#members.set(key, known);
    return known.has(`${placementId}/${moduleId}`);
  }

  /** Whether a channel at work sends enough to a side at some bearing, level, with everything shut. */
  #lights(drive: Drive, face: Face): boolean {
    const key = `${drive.placementId}/${drive.moduleId} ${face}`;
    const most = this.#shares.get(key) ?? shareToward(this.#build, drive, face);
    this.#shares.set(key, most);
    return highestCd(drive) * most > LIGHTS_CD;
  }

  /** Whether a load stands at more than off: the strongest function that speaks of it wins. */
  #loadRuns(on: readonly ActiveFunction[], loadId: string): boolean {
    const off = this.#build.controls.loads.find(({ id }) => id === loadId)?.values[0];
    for (const one of on) {
      const set = effectsOf(this.#build, one).loads.find((l) => l.loadId === loadId);
      if (set !== undefined) return set.value !== off;
    }
    return false;
  }
}

const modulesOf = (drives: readonly Drive[]): number =>
  new Set(drives.map((d) => `${d.placementId}/${d.moduleId}`)).size;

/** Modules that show two colours or more, at once or by turns. */
function inTwoColours(drives: readonly Drive[]): number {
  const colours = new Map<string, Set<string>>();
  for (const { placementId, moduleId, colour } of drives) {
    const module = `${placementId}/${moduleId}`;
    colours.set(module, (colours.get(module) ?? new Set<string>()).add(colour));
  }
  return [...colours.values()].filter(({ size }) => size > 1).length;
}

/** The largest share of a module's peak that arrives at some bearing of a side, level, with everything shut. */
function shareToward(build: Build, module: ModuleRef, face: Face): number {
  const share = new Situation(build, stateWith({}), 0).shareOf(module, LEVEL_DEG);
  return Math.max(...FACE_BEARINGS[face].map((bearing) => share[bearing] ?? 0));
}
