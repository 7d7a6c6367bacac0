import { z } from 'zod';
import { fieldsOf } from '../../../coverage/lampFields.ts';
import { bearingsIn, FACE_BEARINGS, sectorText, type Sector } from '../../../coverage/sectors.ts';
import type { Placement } from '../../../design/placement.ts';
import { REQUIREMENT_HEAD } from '../../../design/brief.ts';
import { lookupOf } from '../../../resolve/lookup.ts';
import { openText } from '../../../state/state.ts';
import { stopsOf, zoneOf } from '../../../vehicle/vehicle.ts';
import { FACES, type Face } from '../../../words/face.ts';
import { Id } from '../../../words/names.ts';
import { atLeast } from '../../finding.ts';
import type { IssueDraft } from '../../judgement.ts';
import { percent, pointing, type LayoutSubject } from '../../layout/subject.ts';
import { defineRequirement } from '../define.ts';
import { zonesText } from '../words.ts';
import { about } from '../../subject.ts';

/** Of what a zone's lamps send in a direction when all is shut, so much must still arrive. */
const LEAST_SHARE = 0.5;
/** Directions are judged by tens of degrees: a pillar of two degrees hides nobody. */
const SECTOR_DEG = 10;
/** Directions that get less than this share of the zone's strongest are not what it serves. */
const SERVED = 0.2;

/** Lamps on these zones still serve every direction they serve when shut, with these stops open. */
export const stayVisible = defineRequirement({
  kind: 'stay-visible',
  name: 'Stay visible with parts open',
  schema: z.strictObject({
    kind: z.literal('stay-visible'),
    ...REQUIREMENT_HEAD,
    zoneIds: z.array(Id).min(1, 'must name at least one zone').max(80),
    open: z.array(Id).min(1, 'must name at least one open part').max(16),
  }),
  first: (build, id) => {
    const { vehicle } = lookupOf(build);
    const zone = vehicle.zones.find((z) => z.face === 'rear');
    const [stop] = stopsOf(vehicle);
    return zone === undefined || stop === undefined
      ? null
      : { kind: 'stay-visible', id, severity: 'warns', zoneIds: [zone.id], open: [stop.id] };
  },
  sentence: (build, wish) =>
    `${zonesText(build, wish.zoneIds)} ${wish.zoneIds.length === 1 ? 'stays' : 'stay'} visible with ${openText(build, wish.open)}`,
  check: {
    onDocument: (subject, wish) => wish.zoneIds.flatMap((id) => zoneFaults(subject, id, wish.open)),
  },
});

function zoneFaults(subject: LayoutSubject, zoneId: string, open: readonly string[]): IssueDraft[] {
  const { vehicle } = subject.lookup;
  if (!vehicle.zones.some((z) => z.id === zoneId))
    return [
      {
        subjects: [about('zone', zoneId)],
        sentence: `the zone of this requirement no longer exists.`,
      },
    ];
  const stops = new Set(stopsOf(vehicle).map((stop) => stop.id));
  const missing = open.find((id) => !stops.has(id));
  if (missing !== undefined)
    return [
      { subjects: [about('zone', zoneId)], sentence: `a moving part of this requirement no longer exists.` },
    ];
  const zone = zoneOf(vehicle, zoneId);
  const lamps = lampsOn(subject, zoneId);
  const what = openText(subject.build, open);
  if (lamps.length === 0)
    return [
      {
        subjects: [about('zone', zoneId)],
        sentence: `${zone.name}: no lamp stays visible with ${what}.`,
      },
    ];
  const after = roundOf(subject, zoneId, open);
  // Lamps inside are made for the open pose: some of their light must come out there.
  if (zone.face === 'inside') return after.some((v) => v > 0) ? [] : [dark(zone.name, zoneId, what)];
  const before = roundOf(subject, zoneId, []);
  const strongest = Math.max(...sectors().map((s) => lightIn(before, s)));
  if (strongest === 0) return [dark(zone.name, zoneId, what)];
  const worst = sectors()
    .filter((s) => lightIn(before, s) >= SERVED * strongest)
    .map((s) => ({ sector: s, share: lightIn(after, s) / lightIn(before, s) }))
    .reduce((a, b) => (b.share < a.share ? b : a));
  if (worst.share >= LEAST_SHARE) return [];
  return [
    {
      ...pointing(lamps, open),
      subjects: [about('zone', zoneId)],
      sentence: `${zone.name}: ${percent(worst.share)} % of its light to the ${faceOf(worst.sector)} remains at ${sectorText(worst.sector)} with ${what} (minimum ${percent(LEAST_SHARE)} %).`,
      figure: { value: worst.share * 100, unit: '%' },
      limits: [atLeast(LEAST_SHARE * 100, '%')],
      sectors: [worst.sector],
    },
  ];
}

const dark = (name: string, zoneId: string, what: string): IssueDraft => ({
  subjects: [about('zone', zoneId)],
  sentence: `${name}: no light is visible with ${what}.`,
  figure: { value: 0, unit: '%' },
  limits: [atLeast(LEAST_SHARE * 100, '%')],
});

/** The lamps of a zone that burn; one planned for later is dark. */
const lampsOn = (subject: LayoutSubject, zoneId: string): Placement[] =>
  subject.lamps.filter((p) => p.zoneId === zoneId && p.status !== 'planned');

/** What a zone's lamps send round the vehicle at their peaks, by whole bearing. */
function roundOf(subject: LayoutSubject, zoneId: string, open: readonly string[]): number[] {
  const fields = fieldsOf(subject.build);
  const lamps = lampsOn(subject, zoneId).flatMap((p) => fields.of(p, open, 0));
  return Array.from({ length: 360 }, (_, b) => lamps.reduce((sum, f) => sum + (f.share[b] ?? 0), 0));
}

/** Tens of degrees, one of them straight behind. */
const sectors = (): Sector[] =>
  Array.from({ length: 360 / SECTOR_DEG }, (_, i) => {
    const fromDeg = (i * SECTOR_DEG + 360 - SECTOR_DEG / 2) % 360;
    return { fromDeg, toDeg: (fromDeg + SECTOR_DEG - 1) % 360 };
  });

const lightIn = (round: readonly number[], sector: Sector): number =>
  bearingsIn(sector).reduce((sum, b) => sum + (round[b] ?? 0), 0);

const faceOf = ({ fromDeg }: Sector): Face =>
  FACES.find((f) => FACE_BEARINGS[f].includes((fromDeg + SECTOR_DEG / 2) % 360)) ?? 'front';
