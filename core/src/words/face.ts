import { z } from 'zod';

/** The four faces of a vehicle, clockwise from the front. */
export const FACES = ['front', 'right', 'rear', 'left'] as const;
export const Face = z.enum(FACES, { error: `must be one of ${FACES.join(', ')}` });
export type Face = z.infer<typeof Face>;

/** The face that a bearing looks out of, degrees. */
export const faceAt = (bearingDeg: number): Face => FACES[Math.round(bearingDeg / 90) % 4] ?? 'front';

export const faceText: Readonly<Record<Face, string>> = {
  front: 'to the front',
  right: 'to the right',
  rear: 'to the rear',
  left: 'to the left',
};
