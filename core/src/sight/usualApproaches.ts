import type { Approach } from '../design/approach.ts';
import { LIGHTS_AROUND, WEATHERS } from '../words/weather.ts';

/** Height of the eye in a car (AASHTO) and in a truck, m. */
const CAR_EYE_M = 1.08;
const TRUCK_EYE_M = 2.5;

const ROADS = [
  { id: 'behind', name: 'Car from behind', bearingDeg: 180, speedKmh: 110, eyeM: CAR_EYE_M },
  { id: 'truck', name: 'Truck from behind', bearingDeg: 180, speedKmh: 90, eyeM: TRUCK_EYE_M },
  { id: 'ahead', name: 'Car from ahead', bearingDeg: 0, speedKmh: 90, eyeM: CAR_EYE_M },
  { id: 'left', name: 'Car from the left', bearingDeg: 270, speedKmh: 50, eyeM: CAR_EYE_M },
  { id: 'right', name: 'Car from the right', bearingDeg: 90, speedKmh: 50, eyeM: CAR_EYE_M },
] as const;

/** The ways in which a vehicle is usually come upon, in every weather, by day, at dusk and at night. */
export const USUAL_APPROACHES: readonly Approach[] = ROADS.flatMap((road) =>
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
