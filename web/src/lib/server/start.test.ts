import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { expect, test } from 'vitest';

const SCRIPT = fileURLToPath(new URL('../../../../scripts/start.mjs', import.meta.url));

/** `npm start` with these variables; DATABASE_URL is left out, so that it never comes to listen. */
function started(env: Record<string, string>): { status: number | null; said: string } {
  const others = { ...process.env };
  delete others.DATABASE_URL;
  const { status, stdout, stderr } = spawnSync(process.execPath, [SCRIPT], {
    env: { ...others, PORT: '0', ...env },
    encoding: 'utf8',
    timeout: 240_000,
  });
  return { status, said: stdout + stderr };
}

test.each(['0.0.0.0', '::', '192.0.2.7'])('HOST=%s without accounts is refused in one sentence', (HOST) => {
  const { status, said } = started({ HOST });
  expect(status).toBe(1);
  expect(said).toMatch(
    new RegExp(`HOST=${HOST.replaceAll('.', '\\.')} lets others in, and Flarik has no accounts`),
  );
  expect(said).not.toMatch(/\n\s+at /);
});

test.each([{}, { HOST: '127.0.0.1' }, { HOST: '0.0.0.0', FLARIK_WITHOUT_ACCOUNTS: 'yes' }])(
  'with %o it goes on, to the next thing that is missing',
  (env) => {
    const { status, said } = started(env);
    expect(status).toBe(1);
    expect(said).toContain('DATABASE_URL must give the MariaDB address');
  },
);
