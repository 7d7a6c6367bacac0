import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Where `npm run build` puts a thread's code: in a folder beside that of the server's, of which this becomes a part. */
export function threadFile(name: string): string {
  const file = join('threads', `${name}.js`);
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, file)) && dirname(folder) !== folder) folder = dirname(folder);
  return join(folder, file);
}
