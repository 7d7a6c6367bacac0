import { z } from 'zod';

/** Why a file cannot be read or written, in plain words. */
export function fileTrouble(error: unknown): string {
  const { code, message } = z
    .object({ code: z.string().catch(''), message: z.string().catch(String(error)) })
    .catch({ code: '', message: String(error) })
    .parse(error);
  switch (code) {
    case 'ENOENT':
      return 'there is no such file or folder';
    case 'EISDIR':
      return 'is a folder, not a file';
    case 'ELOOP':
      return 'is a link that leads round in a circle';
    case 'EACCES':
      return 'is not open to you';
    case 'ENOSPC':
      return 'there is no room left';
    default:
      return message;
  }
}
