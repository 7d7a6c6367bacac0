import { z } from 'zod';

const Loose = z.looseObject({});

/** A vehicle as vehicle files of version 1, and builds before version 4, hold it. What is wrong stays wrong. */
export function vehicleFromVersion1(data: unknown): unknown {
  const vehicle = Loose.safeParse(data);
  if (!vehicle.success) return data;
  const survey = Loose.safeParse(vehicle.data.survey);
  const zones = z.array(Loose).safeParse(vehicle.data.zones);
  return {
    ...vehicle.data,
    reflectors: [],
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
