import { z } from 'zod';

const Loose = z.looseObject({});

/** A blade as it was drawn before it could be measured, m. */
const FIRST_BLADE = { bladeHeightM: 0.72, bladeTravelM: 0.5 };

/** A vehicle as vehicle files of version 2, and builds before version 14, hold it: nothing found otherwise, no equipment. */
export function vehicleFromVersion2(data: unknown): unknown {
  const vehicle = Loose.safeParse(data);
  if (!vehicle.success) return data;
  const survey = Loose.safeParse(vehicle.data.survey);
  return {
    ...vehicle.data,
    equipment: [],
    survey: survey.success
      ? { ...survey.data, lamps: {}, addedLamps: [], keepOuts: {} }
      : vehicle.data.survey,
  };
}

/** A vehicle as vehicle files of version 1, and builds before version 4, hold it. What is wrong stays wrong. */
export function vehicleFromVersion1(data: unknown): unknown {
  const vehicle = Loose.safeParse(data);
  if (!vehicle.success) return data;
  const survey = Loose.safeParse(vehicle.data.survey);
  const options = z.array(z.unknown()).catch([]).parse(vehicle.data.options);
  const dimensions = Loose.safeParse(vehicle.data.dimensions);
  const zones = z.array(Loose).safeParse(vehicle.data.zones);
  return {
    ...vehicle.data,
    reflectors: [],
    ...(dimensions.success && options.includes('front-blade')
      ? { dimensions: { ...dimensions.data, ...FIRST_BLADE } }
      : {}),
    zones: zones.success
      ? zones.data.map(({ fixing, ...zone }) => ({
          ...zone,
          facing: zone.face,
          panDeg: 0,
          tiltDeg: 0,
          partId: null,
          fixings: [fixing],
          behindM: null,
          outM: null,
        }))
      : vehicle.data.zones,
    survey: survey.success ? { ...survey.data, removedLamps: [] } : vehicle.data.survey,
  };
}
