import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { z } from 'zod';
import { Autosave, changesText } from './autosave.svelte';
import { OPENED } from './editing.testing';

test('what changed in one line: each kind of change once, and no longer than is stored', () => {
  expect(changesText(['Move Grille L', 'Move Grille L', 'Delete Roof'])).toBe('Move Grille L; Delete Roof');
  const many = changesText(Array.from({ length: 60 }, (_, i) => `Move lamp ${i}`));
  expect(many).toHaveLength(200);
  expect(many).toMatch(/^Move lamp 0; Move lamp 1;.*…$/);
});

const Sent = z.object({
  build: z.looseObject({ notes: z.string() }),
  basedOn: z.int(),
  saveId: z.string(),
  changed: z.string(),
});

/** What becomes of a save on its way. */
type Fate = 'answered' | 'answer lost' | 'request lost' | 'busy';
const FATES: readonly Fate[] = ['answered', 'answer lost', 'request lost', 'busy'];

/** A server that does each save once, over the version it was based on. */
class Server {
  version = 1;
  notes = '';
  /** What each save brought, by its id. */
  readonly done = new Map<string, { notes: string; version: number }>();
  readonly lines: string[] = [];
  fates: Fate[] = [];
  refusals = 0;

  fetch = (_path: string, init: RequestInit): Promise<Response> =>
    new Promise((done) => done(this.#answer(init)));

  #answer(init: RequestInit): Response {
    const fate = this.fates.shift() ?? 'answered';
    if (fate === 'request lost') throw new TypeError('failed to fetch');
    if (fate === 'busy') return answer(503, { detail: 'busy' });
    const save = Sent.parse(JSON.parse(z.string().parse(init.body)));
    const version = this.#do(save);
    if (fate === 'answer lost') throw new TypeError('failed to fetch');
    return version === null
      ? answer(409, { detail: 'stale', current: { ...OPENED, version: this.version } })
      : answer(200, { version, savedAt: OPENED.savedAt });
  }

  #do({ build: { notes }, basedOn, saveId, changed }: z.infer<typeof Sent>): number | null {
    const known = this.done.get(saveId);
    if (known !== undefined) {
      expect(known.notes).toBe(notes);
      return known.version;
    }
    if (basedOn !== this.version) {
      this.refusals++;
      return null;
    }
    this.version++;
    this.notes = notes;
    this.lines.push(changed);
    this.done.set(saveId, { notes, version: this.version });
    return this.version;
  }
}

function answer(status: number, body: object): Response {
  const problem = { type: 'about:blank', title: 'Problem', status };
  return Response.json(status < 300 ? body : { ...problem, ...body }, { status });
}

/** Long enough for every retry to have its turn. */
const settle = (): Promise<unknown> => vi.advanceTimersByTimeAsync(60_000);

describe('a save whose answer is lost', () => {
  let server = new Server();
  beforeEach(() => {
    vi.useFakeTimers();
    server = new Server();
    vi.stubGlobal('fetch', server.fetch);
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });
  const edit = (autosave: Autosave, notes: string): void =>
    autosave.changed({ ...OPENED.build, notes }, `Notes ${notes}`);

  test('keeps its id until it is answered; the next edit builds on it', async () => {
    const autosave = new Autosave({ version: 1, savedAt: OPENED.savedAt });
    server.fates = ['answer lost'];
    edit(autosave, 'first');
    await vi.advanceTimersByTimeAsync(600);
    expect(autosave.status.kind).toBe('offline');
    edit(autosave, 'second');
    await settle();
    expect(autosave.status.kind).toBe('saved');
    expect(server).toMatchObject({ version: 3, notes: 'second', refusals: 0 });
    expect(server.lines).toEqual(['Notes first', 'Notes second']);
    expect(autosave.wouldLose).toBe(false);
  });

  test('one that is refused lets go of its id, and its changes are in the next', async () => {
    const autosave = new Autosave({ version: 1, savedAt: OPENED.savedAt });
    edit(autosave, 'mine');
    server.version = 5;
    await settle();
    expect(autosave.status.kind).toBe('conflict');
    if (autosave.status.kind !== 'conflict') return;
    autosave.overwrite(autosave.status.theirs, { ...OPENED.build, notes: 'mine' });
    await settle();
    expect(server).toMatchObject({ version: 6, notes: 'mine' });
    expect(server.lines).toEqual(['Notes mine; Overwrite the saved version']);
  });

  test('whatever is lost on the way: never a conflict with oneself, nothing twice, the last edit arrives', async () => {
    const step = fc.record({
      edits: fc.integer({ min: 0, max: 2 }),
      waitMs: fc.constantFrom(0, 300, 700, 5000),
    });
    await fc.assert(
      fc.asyncProperty(
        fc.array(step, { minLength: 1, maxLength: 8 }),
        fc.array(fc.constantFrom(...FATES), { maxLength: 12 }),
        async (steps, fates) => {
          server = new Server();
          vi.stubGlobal('fetch', server.fetch);
          server.fates = [...fates];
          const autosave = new Autosave({ version: 1, savedAt: OPENED.savedAt });
          let n = 0;
          for (const { edits, waitMs } of steps) {
            for (let i = 0; i < edits; i++) edit(autosave, String(++n));
            await vi.advanceTimersByTimeAsync(waitMs);
          }
          await settle();
          expect(server.refusals).toBe(0);
          expect(server.version).toBe(1 + server.done.size);
          expect(autosave.version).toBe(server.version);
          if (n > 0) expect(server.notes).toBe(String(n));
          // Each edit is told in one revision.
          expect(server.lines.flatMap((line) => line.split('; '))).toEqual(
            Array.from({ length: n }, (_, i) => `Notes ${i + 1}`),
          );
        },
      ),
      { numRuns: 60 },
    );
  });
});
