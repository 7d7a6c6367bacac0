import { readBuildText } from '@flarik/core/rules/document';
import { InputError } from '@flarik/core/words/errors';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { fileBuild } from './filed';
import { unpack } from './packed';
import type { ReadJob } from './read';
import { answer } from './problem';
import { Reading } from './reading';
import { demoBuild } from './support.testing';
import { threadFile } from './threadFile';

const build = demoBuild('ks-12');
const asFile = (text: string): ReadJob => ({ text, what: 'build file', as: 'text', id: null });

describe.each(['in a thread', 'by the server itself'])('%s', (where) => {
  let reading: Reading;
  beforeAll(() => {
    // What the tests load is not what was built: the thread is looked for where the build puts it.
    const built = join(process.cwd(), 'build/threads/read.js');
    reading = new Reading({ file: where === 'in a thread' ? built : join(built, 'none') });
  });
  afterAll(() => reading.end());

  test('a build comes out as it is stored: alone, beside other things, under another id', async () => {
    const stored = await fileBuild(build);
    expect(await reading.read(asFile(JSON.stringify(build)))).toEqual(stored);
    const save = {
      text: JSON.stringify({ basedOn: 3, build }),
      what: 'save',
      as: 'member',
      id: null,
    } as const;
    expect(await reading.read(save)).toEqual(stored);
    const id = crypto.randomUUID();
    const other = await reading.read({ ...asFile(JSON.stringify(build)), id });
    expect(other.id).toBe(id);
    expect(readBuildText(other.document)).toEqual({ ...build, id });
    expect(await unpack(other.packed)).toBe(other.document);
  });

  test('what cannot be used is told with its place', async () => {
    const wrong = { ...build, name: '' };
    const refused = await reading.read(asFile(JSON.stringify(wrong))).catch((error: unknown) => error);
    expect(refused).toBeInstanceOf(InputError);
    expect(refused).toMatchObject({ path: 'name' });
    await expect(reading.read(asFile('{'))).rejects.toThrow(/the build file is not valid JSON/);
    const none = reading.read({ text: '{}', what: 'save', as: 'member', id: null });
    await expect(none).rejects.toThrow(InputError);
    await expect(none).rejects.toThrow(/^build: /);
  });
});

describe('a thread', () => {
  let dir = '';
  const threadOf = (code: string): string => {
    const file = join(dir, `${crypto.randomUUID()}.mjs`);
    writeFileSync(file, code);
    return file;
  };
  beforeAll(() => (dir = mkdtempSync(join(tmpdir(), 'flarik-reading-'))));
  afterAll(() => rmSync(dir, { recursive: true, force: true }));

  test('that does not come to an end is stopped, and what comes after is read', async () => {
    const file = threadOf(
      `export default ({ text }) => { if (text === 'for ever') for (;;); return { kind: 'refused', path: 'a', reason: text }; };`,
    );
    const reading = new Reading({ file, longestMs: 1500 });
    const told = (text: string): Promise<Response> =>
      answer(async () => Response.json(await reading.read(asFile(text))));
    // Whoever waits behind it is told the same, and it is no refusal: nothing need be wrong with what they sent.
    const late = await Promise.all([told('for ever'), told('next')]);
    expect(late.map(({ status }) => status)).toEqual([503, 503]);
    expect(await late[1].text()).toContain(
      'did not get to read the build file within 1.5 s. Nothing was changed',
    );
    await expect(reading.read(asFile('later'))).rejects.toThrow('a: later');
    await reading.end();
  });

  test('that fails leaves its error as it is', async () => {
    const reading = new Reading({ file: threadOf(`export default () => { throw new Error('odd'); };`) });
    await expect(reading.read(asFile(''))).rejects.toThrow('odd');
    await reading.end();
  });
});

test('a file that is nowhere is none', () => {
  expect(threadFile('nowhere')).toMatch(/threads\/nowhere\.js$/);
});
