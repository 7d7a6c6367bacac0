import { z } from 'zod';

export const Service = z.enum(
  [
    'police',
    'fire',
    'ems',
    'rescue',
    'tow',
    'road-work',
    'utility',
    'security',
    'escort',
    'airfield',
    'other',
  ],
  { error: 'must be a service Flarik knows, such as police, fire, ems or road-work' },
);
export type Service = z.infer<typeof Service>;
export const SERVICES: readonly Service[] = Service.options;

export const serviceName: Readonly<Record<Service, string>> = {
  police: 'Police',
  fire: 'Fire',
  ems: 'EMS',
  rescue: 'Rescue',
  tow: 'Tow',
  'road-work': 'Road work',
  utility: 'Utility',
  security: 'Security',
  escort: 'Escort',
  airfield: 'Airfield',
  other: 'Other',
};
