// npm start: the built app on this machine alone, unless it is told otherwise. Node built-ins only.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ROOT, start, Stop } from './lib/run.mjs';

const BUILT = join(ROOT, 'web/build/index.js');
const LOOPBACK = new Set(['127.0.0.1', '::1', 'localhost']);

start(async () => {
  const host = process.env.HOST ?? '127.0.0.1';
  if (!LOOPBACK.has(host) && process.env.FLARIK_WITHOUT_ACCOUNTS !== 'yes')
    throw new Stop(
      `HOST=${host} lets others in, and Flarik has no accounts yet: whoever reaches it can read and delete every build. ` +
        'Leave HOST out to serve this machine alone, or set FLARIK_WITHOUT_ACCOUNTS=yes where a proxy asks who comes.',
    );
  if (!existsSync(BUILT)) throw new Stop('The app is not built yet: run npm run build first.');
  process.env.HOST = host;
  process.env.BODY_SIZE_LIMIT ??= 'Infinity';
  process.env.SHUTDOWN_TIMEOUT ??= '5';
  await import(pathToFileURL(BUILT).href);
});
