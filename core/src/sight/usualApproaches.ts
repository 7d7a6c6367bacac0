import type { Approach } from '../design/approach.ts';
import type { Duty } from '../design/brief.ts';
import { LIGHTS_AROUND, WEATHERS } from '../words/weather.ts';

/** Height of the eye in a car (AASHTO) and in a truck, m. */
const CAR_EYE_M = 1.08;
const TRUCK_EYE_M = 2.5;

type Road = Pick<Approach, 'id' | 'name' | 'bearingDeg' | 'speedKmh' | 'eyeM'>;

const ALONG: readonly Road[] = [
  { id: 'behind', name: 'Car from behind', bearingDeg: 180, speedKmh: 110, eyeM: CAR_EYE_M },
  { id: 'truck', name: 'Truck from behind', bearingDeg: 180, speedKmh: 90, eyeM: TRUCK_EYE_M },
  { id: 'ahead', name: 'Car from ahead', bearingDeg: 0, speedKmh: 90, eyeM: CAR_EYE_M },
];
const AT_JUNCTIONS: readonly Road[] = [
  { id: 'left', name: 'Car from the left', bearingDeg: 270, speedKmh: 50, eyeM: CAR_EYE_M },
  { id: 'right', name: 'Car from the right', bearingDeg: 90, speedKmh: 50, eyeM: CAR_EYE_M },
];
const OPEN_ROAD = [...ALONG, ...AT_JUNCTIONS];
/** What is driven on a slip, a quay or a yard, km/h: an assumption; the build's own list says better. */
const YARD_KMH = 30;

/** How a vehicle of some duty is come upon: who stands at the roadside is seldom in a junction. */
function roadsOf(duty: Duty): readonly Road[] {
  switch (duty) {
    case 'roadside work':
      return ALONG;
    case 'marshalling':
      return OPEN_ROAD.map((road) => ({ ...road, speedKmh: YARD_KMH }));
    case 'patrol':
    case 'unmarked':
    case 'command':
    case 'transport':
    case 'rescue':
    case 'fire attack':
    case 'convoy':
    case 'other':
      return OPEN_ROAD;
  }
}

/** The ways in which a vehicle is usually come upon, in every weather, by day, at dusk and at night. */
export const usualApproaches = (duty: Duty): readonly Approach[] =>
  roadsOf(duty).flatMap((road) =>
    WEATHERS.flatMap((weather) =>
      LIGHTS_AROUND.map((around) => ({
        ...road,
        id: `${road.id}-${weather}-${around}`,
        gradePercent: 0,
        crest: null,
        weather,
        around,
        colour: null,
        level: 'any' as const,
        noticing: 1,
      })),
    ),
  );
