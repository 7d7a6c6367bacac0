import type { Constraint } from '../../design/brief.ts';
import { fixtureCostMinor } from '../../resolve/counts.ts';
import { fixingOf, holesOf, housingCorners } from '../../resolve/place.ts';
import { STAGES, type Build, type Placement } from '../../design/schema.ts';
import type { State } from '../../state/state.ts';
import { COLOURS } from '../../words/colour.ts';
import type { Fault } from '../finding.ts';
import { newFaultsByPose, shownEvidence, shownToward } from '../kinds/shown.ts';
import { evidenceOf, LayoutSubject, mmDown } from '../layout/subject.ts';
import type { RuleFace } from '../pack.ts';
import { faceText, roundUp, stateOf, Subject } from '../subject.ts';
import { constraintSentence, moneyText } from './sentence.ts';
import { checkStayVisible } from './stayVisible.ts';
import { checkUnseen } from './unseen.ts';

/** Light counts as shown to a face above this, cd. */
const SHOWN_CD = 5;

export interface BriefOutcome {
  readonly constraint: Constraint;
  readonly clause: string;
  readonly faults: readonly Fault[];
  readonly statesChecked: number;
}

/**
 * Checks what the agency asked for, as a pack of its own.
 * @param only - looks at this state alone; null looks at every state
 */
export function checkBrief(build: Build, only: State | null): BriefOutcome[] {
  const layout = new LayoutSubject(build);
  const light = new Subject(build, { upperAboveM: 0 }, only);
  return build.brief.constraints.map((constraint) => ({
    constraint,
    clause: constraintSentence(build, constraint),
    faults: check(layout, light, constraint),
    statesChecked:
      constraint.kind === 'only-colours' || constraint.kind === 'never-colours'
        ? light.stages({ stages: STAGES }).length * light.poses.length
        : 1,
  }));
}

function check(layout: LayoutSubject, light: Subject, c: Constraint): Fault[] {
  const { build, lookup } = layout;
  switch (c.kind) {
    case 'lowest-lamp':
      return layout.standing().flatMap(({ p, placed }): Fault[] => {
        const lowest = Math.min(...housingCorners(placed).map((corner) => corner[2]));
        if (lowest >= c.heightM - 1e-9) return [];
        return [
          {
            sentence: `"${p.label}" reaches down to ${mmDown(lowest)} mm; nothing may be below ${Math.round(c.heightM * 1000)} mm.`,
            figure: { value: lowest * 1000, unit: 'mm' },
            limits: [{ value: c.heightM * 1000, unit: 'mm', sense: 'at least' }],
            evidence: evidenceOf([p]),
          },
        ];
      });
    case 'no-holes':
      return layout.standing().flatMap(({ p, placed: { fixture, zone } }): Fault[] => {
        if (c.zoneIds.length > 0 && !c.zoneIds.includes(zone.id)) return [];
        const holes = holesOf(fixture, zone, p);
        if (holes === 0) return [];
        return [
          {
            sentence: `"${p.label}" is held by ${fixingOf(zone, p)} and makes ${holes} holes in ${zone.name}.`,
            figure: { value: holes, unit: 'holes' },
            limits: [{ value: 0, unit: 'holes', sense: 'at most' }],
            evidence: evidenceOf([p]),
          },
        ];
      });
    case 'only-colours':
    case 'never-colours':
      return colourFaults(light, c);
    case 'unseen-when-off':
      return checkUnseen(layout, c);
    case 'spend-at-most': {
      const spent = fixtureCostMinor(build);
      if (spent <= c.minor) return [];
      return [
        {
          sentence: `the fixtures cost ${moneyText(spent, build.brief.currency)}, ${moneyText(spent - c.minor, build.brief.currency)} over the limit.`,
          figure: { value: spent / 100, unit: 'money' },
          limits: [{ value: c.minor / 100, unit: 'money', sense: 'at most' }],
          evidence: evidenceOf([]),
        },
      ];
    }
    case 'keep-head': {
      const p = build.placements.find((candidate) => candidate.id === c.placementId);
      if (p?.status === 'kept') return [];
      const what = p === undefined ? 'is not there any more' : `is marked ${p.status}, not kept`;
      return [
        {
          sentence: `the head to be kept, "${p?.label ?? c.placementId}", ${what}.`,
          figure: null,
          limits: [],
          evidence: evidenceOf(p === undefined ? [] : [p]),
        },
      ];
    }
    case 'leave-factory-lamp':
      return untouchedFaults(layout, c.lampId);
    case 'spare-outputs': {
      const used = outputsUsed(layout.lamps);
      const spare = c.outputs - used;
      if (spare >= c.spare) return [];
      return [
        {
          sentence: `${used} of ${c.outputs} outputs are used, which leaves ${Math.max(0, spare)} of the ${c.spare} to stay spare.`,
          figure: { value: spare, unit: 'outputs' },
          limits: [{ value: c.spare, unit: 'outputs', sense: 'at least' }],
          evidence: evidenceOf([]),
        },
      ];
    }
    case 'stay-visible': {
      const missing = c.zoneIds.find((id) => !lookup.vehicle.zones.some((z) => z.id === id));
      if (missing === undefined) return checkStayVisible(layout, c);
      return [
        {
          sentence: `this vehicle has no zone '${missing}', which is to stay visible.`,
          figure: null,
          limits: [],
          evidence: evidenceOf([]),
        },
      ];
    }
  }
}

/** One output for each colour of each module, as if nothing were ganged. */
const outputsUsed = (lamps: readonly Placement[]): number =>
  lamps.reduce(
    (n, p) => n + p.modules.reduce((k, m) => k + (m.insert === 'blank' ? 0 : m.colours.length), 0),
    0,
  );

function colourFaults(
  light: Subject,
  c: Extract<Constraint, { kind: 'only-colours' | 'never-colours' }>,
): Fault[] {
  const forbidden = COLOURS.filter((colour) => c.colours.includes(colour) === (c.kind === 'never-colours'));
  return light.stages({ stages: STAGES }).flatMap((stage) =>
    c.faces.flatMap((face: RuleFace) =>
      newFaultsByPose(light, (open) => {
        const state = stateOf(stage, open, light.brightest);
        return forbidden.flatMap((colour) => {
          const lit = light.lit(state).filter(({ drive }) => drive.colour === colour);
          const shown = shownToward(lit, face, SHOWN_CD);
          if (shown === null) return [];
          return [
            {
              sentence: `${colour} shows ${faceText[face]} from ${light.lampsText(shown.channels.map((s) => s.drive))} in ${light.stateText(state)}, up to ${roundUp(shown.peakCd)} cd at ${shown.bearing}°.`,
              figure: { value: shown.peakCd, unit: 'cd' as const },
              limits: [{ value: SHOWN_CD, unit: 'cd' as const, sense: 'at most' as const }],
              evidence: shownEvidence(shown, state),
            },
          ];
        });
      }),
    ),
  );
}

/** A factory lamp is touched by a lamp put into it or before it. */
function untouchedFaults(layout: LayoutSubject, lampId: string): Fault[] {
  const lamp = layout.lookup.vehicle.factoryLamps.find((l) => l.id === lampId);
  if (lamp === undefined)
    return [
      {
        sentence: `this vehicle has no factory lamp '${lampId}', which is to stay untouched.`,
        figure: null,
        limits: [],
        evidence: evidenceOf([]),
      },
    ];
  const bounds = [0, 1, 2].map((axis) => {
    const values = lamp.outline.map((corner) => corner[axis] ?? 0);
    return [Math.min(...values) - 0.02, Math.max(...values) + 0.02] as const;
  });
  return layout.standing().flatMap(({ p, housing }): Fault[] => {
    const meets = bounds.every(([low, high], axis) => {
      const values = housing.corners.map((corner) => corner[axis] ?? 0);
      return Math.max(...values) > low && Math.min(...values) < high;
    });
    if (!meets) return [];
    return [
      {
        sentence: `"${p.label}" stands at the ${lamp.name.toLowerCase()}, which is to stay untouched.`,
        figure: null,
        limits: [],
        evidence: evidenceOf([p]),
      },
    ];
  });
}
