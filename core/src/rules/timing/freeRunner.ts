import type { Build } from '../../design/schema.ts';
import type { State } from '../../state/state.ts';
import { STAGES } from '../../design/schema.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import { drivesOf, type Drive } from '../../resolve/channels.ts';
import { driftOf } from '../../timing/step.ts';
import type { Fault } from '../finding.ts';
import type { Severity } from '../pack.ts';
import { stateOf } from '../subject.ts';

/** Heads that cannot follow the clock of the group they are in, once for each lamp, in the first stage that shows it. */
export function freeRunners(build: Build, only: State | null): { severity: Severity; fault: Fault }[] {
  const seen = new Set<string>();
  return STAGES.filter((stage) => only === null || only.stage === stage).flatMap((stage) => {
    const free = drivesOf(build, stage, only?.ambient ?? 'day').filter(
      (d) => d.freeBecause !== null && !d.steady && d.spans.length > 0 && !seen.has(d.placementId),
    );
    const lamps = [...new Set(free.map((d) => d.placementId))];
    for (const id of lamps) seen.add(id);
    return lamps.map((id) => {
      const drives = free.filter((d) => d.placementId === id);
      const group = build.timing.groups.find((g) => g.id === drives[0]?.groupId);
      return {
        severity: group?.mustKeepStep === true ? ('warns' as const) : ('notes' as const),
        fault: {
          sentence: sentence(build, id, group?.name ?? '', drives),
          figure: null,
          limits: [],
          evidence: { state: stateOf(stage), channelIds: drives.map((d) => d.channelId), sectors: [] },
        },
      };
    });
  });
}

function sentence(build: Build, placementId: string, group: string, drives: readonly Drive[]): string {
  const lamp = build.placements.find((p) => p.id === placementId);
  const why = drives[0]?.freeBecause ?? '';
  const flasher = lamp === undefined ? null : lookupOf(build).fixture(lamp.fixtureId).flasher;
  const cycleMs = drives[0]?.cycleMs ?? 0;
  const drift = flasher === null ? null : driftOf(cycleMs, flasher.tolerancePercent);
  const how =
    drift === null
      ? ''
      : ` It may drift by ${drift.msPerCycle.toFixed(1)} ms a cycle, through every alignment in ${Math.round(drift.roundS)} s.`;
  return `"${lamp?.label ?? placementId}" runs free in the group "${group}": it ${why}.${how}`;
}
