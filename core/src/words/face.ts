import { z } from 'zod';

/** The four faces of a vehicle, clockwise from the front. */
export const FACES = ['front', 'right', 'rear', 'left'] as const;
export const Face = z.enum(FACES, { error: `must be one of ${FACES.join(', ')}` });
export type Face = z.infer<typeof Face>;

/** As near to a corner as this a bearing lies on it, degrees. */
const ON_CORNER_DEG = 1e-3;

/** The faces that a bearing looks out of, degrees: one, or both where it looks out of a corner. */
export const facesAt = (bearingDeg: number): Face[] =>
  FACES.filter((_, i) => Math.abs(((bearingDeg - 90 * i + 900) % 360) - 180) <= 45 + ON_CORNER_DEG);

export const faceText: Readonly<Record<Face, string>> = {
  front: 'to the front',
  right: 'to the right',
  rear: 'to the rear',
  left: 'to the left',
};
