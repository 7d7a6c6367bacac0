import { leavesOf, type Condition } from '../../design/condition.ts';
import type { ControlFunction } from '../../design/functions.ts';
import type { Placement } from '../../design/placement.ts';
import type { ModuleRef } from '../../design/schema.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import { placeModules } from '../../resolve/place.ts';
import type { Vec3 } from '../../geometry/vec.ts';
import { tieZoneId } from '../../vehicle/tieIn.ts';
import type { VerificationFinding, VerificationCheck } from '../found.ts';
import type { VerificationSubject } from '../subject.ts';
import { about, subjectsKey } from '../../rules/subject.ts';

/** Nearer to the centre plane than this a lamp belongs to no side, m. */
const MIDDLE_M = 0.2;

const SIGNALS = ['stop', 'turn', 'reverse'] as const;
type Signal = (typeof SIGNALS)[number];
const NAMES: Readonly<Record<Signal, string>> = { stop: 'brake', turn: 'turn', reverse: 'reversing' };

/** Something that gives a signal at a corner of the vehicle. */
interface Giver {
  readonly signal: Signal;
  /** "rear left". */
  readonly corner: string;
  /** The module that burns for it; null for a lamp of the maker's that nobody ties in. */
  readonly module: ModuleRef | null;
}

/**
 * Lamps used for warning that are the only brake, turn or reversing lamp of their side: what the flasher does to them, it
 * does to the signal. Graver where the signal does not win over the warning.
 */
export const onlySignal: VerificationCheck = {
  kind: 'only-signal',
  severity: 'blocks',
  clause: 'No warning lamp is the only signal lamp of its side',
  alone: true,
  find: (subject) => {
    const warning = modulesOfWarning(subject);
    const warns = (module: ModuleRef | null): boolean => module !== null && warning.has(keyOf(module));
    const givers = giversOf(subject);
    const found = new Map<string, VerificationFinding>();
    for (const { signal, corner, module } of givers) {
      const placement = subject.build.placements.find(({ id }) => id === module?.placementId);
      if (module === null || placement === undefined || !warns(module)) continue;
      const others = givers.filter((g) => g.signal === signal && g.corner === corner && !warns(g.module));
      const subjects = [about('lamp', placement.id), about('signal', signal)];
      const key = subjectsKey(subjects);
      if (others.length > 0 || found.has(key)) continue;
      found.set(key, {
        subjects,
        sentence: `${placement.label} is used for warning and is the only ${NAMES[signal]} lamp at the ${corner}.`,
        channels: [{ ...module, slot: 1 }],
        ...(wins(subject, placement, signal) ? { severity: 'warns' as const } : {}),
      });
    }
    return [...found.values()];
  },
};

const keyOf = ({ placementId, moduleId }: ModuleRef): string => `${placementId}/${moduleId}`;

/** The modules that some stage or warning lights. */
const modulesOfWarning = (subject: VerificationSubject): ReadonlySet<string> =>
  new Set(
    subject.functions
      .filter(({ kind }) => kind === 'stage' || kind === 'warning')
      .flatMap((fn) => subject.litBy(fn).map(keyOf)),
  );

/** All that gives a signal: the maker's lamps, tied in or not, and modules that a signal of the programme lights. */
function giversOf(subject: VerificationSubject): Giver[] {
  const { build } = subject;
  const lookup = lookupOf(build);
  const standing = build.placements.filter(({ status }) => status !== 'removed' && status !== 'planned');
  const fitted = lookup.vehicle.factoryLamps.flatMap((lamp): Giver[] => {
    const signal = SIGNALS.find((one) => one === lamp.does);
    const [corner] = lamp.outline;
    if (signal === undefined || corner === undefined) return [];
    const tied = standing.find((p) => subject.isFactory(p) && p.zoneId === tieZoneId(lamp.id));
    const [module] = tied?.modules ?? [];
    const at = cornerOf(corner, lamp.aim);
    return at === null
      ? []
      : [
          {
            signal,
            corner: at,
            module:
              tied === undefined || module === undefined
                ? null
                : { placementId: tied.id, moduleId: module.id },
          },
        ];
  });
  const lit = subject.functions.flatMap((fn) => {
    const signal = fn.kind === 'signal' ? signalOf(fn) : null;
    if (signal === null) return [];
    return subject.litBy(fn).flatMap((module): Giver[] => {
      const p = standing.find(({ id }) => id === module.placementId);
      if (p === undefined || subject.isFactory(p)) return [];
      const placed = placeModules(lookup, p, new Set()).find((m) => m.module.id === module.moduleId);
      const corner = placed === undefined ? null : cornerOf(placed.centre, placed.frame.aim);
      return corner === null ? [] : [{ signal, corner, module }];
    });
  });
  return [...fitted, ...lit];
}

/** The corner at which a lamp stands and shines to the front or rear, "rear left"; null in the middle. */
function cornerOf([, y]: Vec3, [x]: Vec3): string | null {
  if (Math.abs(y) < MIDDLE_M) return null;
  return `${x > 0 ? 'front' : 'rear'} ${y > 0 ? 'left' : 'right'}`;
}

/** Which signal of the vehicle a function shows, by the inputs it asks about; null for another. */
function signalOf({ when, enabledBy }: ControlFunction): Signal | null {
  const asked: Condition[] = [when.way === 'while' ? when.condition : null, enabledBy].filter(
    (c) => c !== null,
  );
  const leaves = asked.flatMap((c) => [...leavesOf(c)]).filter((leaf) => leaf.kind === 'is');
  if (leaves.some(({ input }) => input === 'brake')) return 'stop';
  if (leaves.some(({ input }) => input === 'turn')) return 'turn';
  return leaves.some(({ input, values }) => input === 'gear' && values.includes('reverse'))
    ? 'reverse'
    : null;
}

/** Whether a signal comes before the warning: on a lamp of the maker's where its flasher stops for it, elsewhere always. */
function wins(subject: VerificationSubject, placement: Placement, signal: Signal): boolean {
  if (!subject.isFactory(placement)) return true;
  const ids = subject.functions
    .filter((fn) => fn.kind === 'signal' && signalOf(fn) === signal)
    .map(({ id }) => id);
  return ids.length > 0 && ids.every((id) => placement.stopsFor.includes(id));
}
