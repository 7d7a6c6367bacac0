import { z } from 'zod';

/** An identifier inside a document. */
export const Id = z
  .string({ error: 'must be an identifier' })
  .regex(/^[A-Za-z0-9][A-Za-z0-9._-]{0,63}$/, 'must be 1 to 64 letters, digits, dots, dashes or underscores');

/** A name people read: one line, no markup. */
export const Name = z
  .string({ error: 'must be text' })
  .min(1, 'must not be empty')
  .max(80, 'must be at most 80 characters')
  .regex(/^[^<>\p{Control}]*$/u, 'must be one line without < or >');

/** A longer remark; may be empty, may run over lines, no markup. */
export const FreeText = z
  .string({ error: 'must be text' })
  .max(2000, 'must be at most 2000 characters')
  .regex(/^[^<>]*$/u, 'must not contain < or >');
