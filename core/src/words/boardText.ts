import { z } from 'zod';

/** What a message board says; empty is nothing of its own. */
export const BoardText = z
  .string({ error: 'must be text' })
  .max(40, 'must be at most 40 characters')
  .regex(/^[^<>\p{Control}]*$/u, 'must be one line without < or >');

/**
 * How far a text can be read, m: 9.144 m for each 25.4 mm of letter height (30 feet to the inch), the rule of thumb of
 * the Manual on Uniform Traffic Control Devices, 2009, section 2A.13. A sharp eye reads farther, a moving one less.
 *
 * @param letterM - height of the letters, m
 */
export const legibleM = (letterM: number): number => letterM * 360;
