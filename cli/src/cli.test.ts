import { execFile } from 'node:child_process';
import { mkdtempSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, test } from 'vitest';
import { z } from 'zod';
import { answer } from './answer.ts';
import { COMMANDS } from './commands.ts';

const root = fileURLToPath(new URL('../..', import.meta.url));
const demo = (name: string): string => join(root, `demo/builds/${name}.json`);
const folder = mkdtempSync(join(tmpdir(), 'flarik-cli-'));

function file(name: string, text: string | Buffer): string {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
}

const flarik = (...args: string[]) => answer(args);

describe('as a process', () => {
  test('it says the same, with the same exit code', async () => {
    const ended = await new Promise<{ code: unknown; stdout: string; stderr: string }>((done) => {
      const child = execFile(
        process.execPath,
        ['--import', 'tsx', 'cli/src/main.ts', 'check', '/nowhere.json'],
        { cwd: root },
        (_, stdout, stderr) => done({ code: child.exitCode, stdout, stderr }),
      );
    });
    const { exitCode, stdout, stderr } = flarik('check', '/nowhere.json');
    expect(ended).toEqual({ code: exitCode, stdout, stderr });
    expect(exitCode).toBe(2);
  });
  test('whoever reads no further ends it quietly: … | head', async () => {
    const ended = await new Promise<{ stderr: string; stdout: string }>((done) => {
      execFile(
        'bash',
        [
          '-c',
          `${process.execPath} --import tsx cli/src/main.ts geometry ${demo('tunnel-pumper-3')} --json | head -n 1; exit \${PIPESTATUS[0]}`,
        ],
        { cwd: root },
        (_, stdout, stderr) => done({ stdout, stderr }),
      );
    });
    expect(ended).toEqual({ stdout: '{\n', stderr: '' });
  });
});

describe('help', () => {
  test('of all commands, and of one', () => {
    for (const asked of [['--help'], ['help'], ['-h']]) {
      const { exitCode, stdout } = flarik(...asked);
      expect(exitCode).toBe(0);
      for (const { name } of COMMANDS) expect(stdout).toContain(`flarik ${name} `);
    }
    const { exitCode, stdout } = flarik('coverage', '--help');
    expect(exitCode).toBe(0);
    expect(stdout).toMatch(/flarik coverage FILE --stage N/);
    expect(stdout).not.toMatch(/flarik check FILE/);
  });
});

describe('check', () => {
  test('KS-12 blocks: exit 1, with sentences', () => {
    const { exitCode: code, stdout } = flarik('check', demo('ks-12'));
    expect(code).toBe(1);
    expect(stdout).toMatch(
      /^Blocking {2}Flashing blue to the rear: 6,640 cd combined at 177° \(limit 40 cd\), from 3 lamps\. Permitted: red, amber\. \[Stage 1 · everything closed · day\]/,
    );
  });

  test('KS-13 is clean: exit 0, as JSON', () => {
    const { exitCode: code, stdout } = flarik('check', demo('ks-13'), '--json');
    expect(code).toBe(0);
    const { findings } = z
      .object({ findings: z.array(z.object({ severity: z.string() })) })
      .parse(JSON.parse(stdout));
    expect(findings.filter((f) => f.severity === 'blocks' || f.severity === 'warns')).toEqual([]);
  });
});

describe('proof', () => {
  test('check tells the shortest way to each fault of the controls, as simulate reads it', () => {
    const { stdout } = flarik('check', demo('ks-12'));
    expect(stdout).toContain('sequence: ignition=on, part.hatch=hatch, key-siren=press');
    expect(stdout).toMatch(
      /Controls: all 9,588,178,944 reachable states checked \(of 65,229,815,808 possible\), 6,145 output states/,
    );
    const { findings, counts } = z
      .object({
        findings: z.array(z.object({ ruleId: z.string(), events: z.string().optional() })),
        counts: z.object({ reachable: z.string(), whole: z.boolean() }),
      })
      .parse(JSON.parse(flarik('check', demo('ks-12'), '--json').stdout));
    expect(counts).toEqual({ reachable: '9588178944', whole: true });
    const { events = '' } = findings.find((f) => f.ruleId === 'no-white-in-fog') ?? {};
    const { steps } = z
      .object({ steps: z.array(z.object({ refused: z.boolean(), on: z.array(z.string()) })) })
      .parse(JSON.parse(flarik('simulate', demo('ks-12'), '--events', events, '--json').stdout));
    expect(steps.some((s) => s.refused)).toBe(false);
    expect(steps.at(-1)?.on).toEqual(expect.arrayContaining(['white', 'fog']));
  });

  test('states: counts, events, and every input with its values', () => {
    const States = z.object({
      raw: z.string(),
      reachable: z.string(),
      pictures: z.string(),
      whole: z.boolean(),
      events: z.int(),
      inputs: z.record(z.string(), z.array(z.string())),
    });
    const { exitCode, stdout } = flarik('states', demo('ferry-slip'), '--json');
    expect(exitCode).toBe(0);
    const { inputs, ...counts } = States.parse(JSON.parse(stdout));
    expect(counts).toMatchObject({ pictures: '6', whole: true });
    expect(inputs['dash-switch']).toEqual(['in', 'half', 'out']);
    const product = Object.values(inputs).reduce((all, values) => all * BigInt(values.length), 1n);
    // Beside the inputs there is one key, and of three speeds the fast one turns its light off.
    expect(counts.raw).toBe(String(product * 2n));
    expect(counts.reachable).toBe(String((product * 2n * 5n) / 6n));
    expect(flarik('states', demo('ferry-slip')).stdout).toMatch(/dash-switch\s+in, half, out/);
  });
});

describe('waveform', () => {
  const Answer = z.object({
    clocks: z.array(
      z.object({
        clockId: z.string(),
        cycleMs: z.number(),
        spans: z.array(z.object({ fromMs: z.number(), toMs: z.number(), cd: z.number(), toCd: z.number() })),
      }),
    ),
    powerCdsPerMin: z.number(),
    repeats: z.boolean(),
    together: z
      .object({ cycleMs: z.number(), effectiveCd: z.number(), longestDarkMs: z.number() })
      .nullable(),
    worst: z.object({
      highestCd: z.number(),
      longestDarkMs: z.number().nullable(),
      longestDarkExact: z.boolean(),
      effectiveCd: z.number(),
    }),
  });

  test('gives exact spans whose light adds up to the optical power, and the worst over drift', () => {
    const { exitCode: code, stdout } = flarik(
      'waveform',
      demo('tunnel-pumper-3'),
      '--stage',
      '3',
      '--bearing',
      '20',
      '--json',
    );
    expect(code).toBe(0);
    const answer = Answer.parse(JSON.parse(stdout));
    const power = answer.clocks.reduce((sum, { cycleMs, spans }) => {
      expect(spans[0]?.fromMs).toBe(0);
      expect(spans.at(-1)?.toMs).toBe(cycleMs);
      const energy = spans.reduce((e, s) => e + ((s.cd + s.toCd) / 2) * (s.toMs - s.fromMs), 0);
      return sum + (energy / cycleMs) * 60;
    }, 0);
    expect(power).toBeCloseTo(answer.powerCdsPerMin, 3);
    expect(answer.repeats).toBe(answer.clocks.length < 2);
    expect(answer.worst.longestDarkExact).toBe(true);
    expect(answer.worst.effectiveCd).toBeLessThanOrEqual((answer.together?.effectiveCd ?? 0) + 1e-6);
    expect(answer.worst.longestDarkMs).toBeGreaterThanOrEqual(answer.together?.longestDarkMs ?? 0);
  });

  test('one colour alone, in words', () => {
    const { stdout } = flarik(
      'waveform',
      demo('ks-13'),
      '--stage',
      '3',
      '--bearing',
      '0',
      '--colour',
      'white',
    );
    expect(stdout).toMatch(/optical power\s+\d+ cd·s\/min/);
    expect(stdout).toMatch(/worst alignment/);
  });
});

describe('sight', () => {
  const json = (...args: string[]): unknown => JSON.parse(flarik(...args, '--json').stdout);

  test('map: a row for each elevation, as coverage says of one', () => {
    const Map = z.object({
      rows: z.array(z.object({ elevationDeg: z.number(), values: z.array(z.number()) })),
    });
    const { rows } = Map.parse(json('map', demo('ks-13'), '--stage', '2'));
    expect(rows.map(({ elevationDeg }) => elevationDeg)).toEqual(
      Array.from({ length: 46 }, (_, i) => 2 * i - 30),
    );
    const Ring = z.object({ bearings: z.array(z.object({ powerCdsPerMin: z.number() })) });
    const ring = Ring.parse(json('coverage', demo('ks-13'), '--stage', '2', '--elevation', '10')).bearings;
    const row = rows.find(({ elevationDeg }) => elevationDeg === 10)?.values ?? [];
    expect(row).toHaveLength(ring.length);
    // Two ways to the same light: but for rounding.
    for (const [b, { powerCdsPerMin }] of ring.entries())
      expect(Math.abs((row[b] ?? NaN) - powerCdsPerMin)).toBeLessThan(1e-9 * (1 + powerCdsPerMin));
    const csv = flarik('map', demo('ks-13'), '--stage', '2', '--quantity', 'peak', '--csv')
      .stdout.trim()
      .split('\n');
    expect([csv.length, csv[0]?.split(',').length]).toEqual([47, 361]);
    expect(flarik('map', demo('ks-13'), '--stage', '2').stderr).toBe(
      'a map is given as --csv or as --json\n',
    );
    expect(flarik('map', demo('ks-13'), '--stage', '2', '--csv', '--quantity', 'lumens').exitCode).toBe(2);
  });
  test('approach: sixty, the least to spare first, for three observers', () => {
    const Table = z.object({
      approaches: z.array(z.object({ sightings: z.array(z.object({ marginS: z.number() })) })),
    });
    const rows = Table.parse(json('approach', demo('ks-13'), '--stage', '2')).approaches;
    const spare = rows.map(({ sightings }) => sightings[0]?.marginS ?? 0);
    expect(spare).toHaveLength(60);
    expect(spare).toEqual(spare.toSorted((a, b) => a - b));
    expect(rows[0]?.sightings).toHaveLength(3);
    expect(flarik('approach', demo('ks-13'), '--stage', '2').stdout).toMatch(
      /^Car from behind · fog · day: detected at 174 m, stopping distance 214 m, margin −1\.3 s\. protan margin −1\.5 s, deutan margin −1\.2 s\./,
    );
  });
  test('approach: at night, all lamps off, from how far the reflective areas are seen', () => {
    const lines = flarik('approach', demo('line-marking'), '--stage', '3').stdout.split('\n');
    const behind = lines.find((line) => line.startsWith('Car from behind · clear air · night'));
    expect(behind).toMatch(/Lamps off: reflective markings detected at \d{3} m \(headlamps/);
    expect(lines.find((line) => line.startsWith('Car from behind · clear air · day'))).not.toMatch(
      /Lamps off/,
    );
  });
  test('junction: the same from both sides, as asked for; a corner that cannot be is named', () => {
    const Found = z.object({
      noseM: z.number(),
      corner: z.object({ from: z.string(), cornerBackM: z.number(), eyeAlongM: z.number() }),
      byLamp: z.array(z.object({ placementId: z.string(), noseM: z.number().nullable() })),
    });
    const at = (corner: string) =>
      Found.parse(json('junction', demo('ks-12'), '--stage', '3', '--corner', corner));
    const [left, right] = [at('from=left'), at('from=right, cornerBackM = 4')];
    expect(left.corner).toEqual({ from: 'left', cornerBackM: 4, eyeAlongM: 30 });
    expect(left.noseM).toBeCloseTo(right.noseM, 1);
    expect(at('cornerBackM=8').noseM).toBeGreaterThan(left.noseM);
    expect(left.byLamp.some(({ noseM }) => noseM === null)).toBe(true);
    const text = flarik('junction', demo('ks-12'), '--stage', '3').stdout;
    expect(text).toMatch(
      /^From the left, 30 m from the crossing: first visible with the bumper 4\.6 m before the line\./,
    );
    expect(text).toMatch(/: not visible before the bumper reaches the line$/m);
    const wrong = (corner: string) =>
      flarik('junction', demo('ks-12'), '--stage', '3', '--corner', corner).stderr;
    expect(wrong('from=above')).toMatch(/--corner: from must be right or left/);
    expect(wrong('eyeAlongM=3')).toMatch(/eyeAlongM must be more than cornerAsideM/);
    expect(wrong('eyeM=high')).toMatch(/--corner: eyeM/);
    expect(wrong('height=2')).toMatch(/--corner: .*height/);
  });
  test('ground: the pumper lights its sides; every point as a table', () => {
    const lit = ['ground', demo('tunnel-pumper-3'), '--on', 'scene-light', '--grid', '1'];
    expect(flarik(...lit).stdout).toMatch(/^Left side, 3 m +mean \d{3}\.\d lx/);
    const lines = flarik(...lit, '--csv')
      .stdout.trim()
      .split('\n');
    expect(new Set(lines.map((line) => line.split(',').length)).size).toBe(1);
    expect(flarik(...lit.slice(0, -1), '0').exitCode).toBe(2);
  });
  test('variant: what a build comes to, to be held against another', () => {
    const Figures = z.object({
      mode: z.number(),
      light: z.object({ rear: z.object({ least: z.number(), mean: z.number() }) }),
    });
    const three = Figures.parse(json('variant', demo('ks-13')));
    const two = Figures.parse(json('variant', demo('ks-13'), '--stage', '2'));
    expect([three.mode, two.mode]).toEqual([3, 2]);
    expect(three.light.rear.least).toBeLessThanOrEqual(three.light.rear.mean);
    expect(flarik('variant', demo('ks-13'), '--ambient', 'night').stdout).toMatch(
      /^front +least +\d+, mean +\d+ cd·s\/min\n[\s\S]* lamps, \d+ holes, \d+\.\d h to fit\n/,
    );
    expect(flarik('variant', demo('ks-13'), '--stage', '0').exitCode).toBe(2);
  });
  test('glare and veil: at eyes near by, on the road and in the cab', () => {
    const Eyes = z.object({ eyes: z.array(z.object({ thresholdIncrementPercent: z.number() })) });
    const { eyes } = Eyes.parse(json('glare', demo('ks-13'), '--stage', '2', '--ambient', 'night'));
    // Driver, rear, both sides, roadside, reaching in; two drivers at each ten metres up to 200.
    expect(eyes).toHaveLength(6 + 2 * 20);
    expect(Math.max(...eyes.map((e) => e.thresholdIncrementPercent))).toBeGreaterThan(10);
    const Driver = z.object({ direct: z.array(z.object({ on: z.string(), eyeLx: z.number() })) });
    const { direct } = Driver.parse(json('glare', demo('incident-command'), '--stage', '2'));
    expect(direct.every(({ eyeLx }) => eyeLx > 0)).toBe(true);
    const used = (...more: string[]) =>
      Eyes.parse(json('glare', demo('ks-13'), '--stage', '2', ...more)).eyes.map(
        (e) => e.thresholdIncrementPercent,
      );
    // Below 5 cd/m² as the power of 0.8: adaptation luminance a tenth needs 10^0.8 times as much more.
    const [one, tenth] = [Math.max(...used('--adaptation', '1')), Math.max(...used('--adaptation', '0.1'))];
    expect(tenth / one).toBeCloseTo(10 ** 0.8, 6);
    expect(flarik('glare', demo('ks-13'), '--stage', '2', '--adaptation', '0').exitCode).toBe(2);
    const Veil = z.object({ mean: z.number(), byLamp: z.array(z.object({ mean: z.number() })) });
    const veil = Veil.parse(json('veil', demo('ks-13'), '--stage', '2', '--visibility', '50'));
    expect(veil.byLamp.reduce((sum, one) => sum + one.mean, 0)).toBeCloseTo(veil.mean, 6);
    expect(flarik('veil', demo('ks-13'), '--stage', '2', '--visibility', '5').exitCode).toBe(2);
    expect(flarik('veil', demo('ks-13'), '--stage', '3').stdout).toMatch(
      /seen in left quarter glass, 0\.\d{3} lx at the eye: /,
    );
  });
});

describe('coverage', () => {
  const Answer = z.object({
    bearings: z.array(
      z.object({ bearingDeg: z.number(), effectiveCd: z.number(), powerCdsPerMin: z.number() }),
    ),
  });

  test('gives a figure for each bearing, and the hatch makes a difference', () => {
    const shut = Answer.parse(JSON.parse(flarik('coverage', demo('ks-12'), '--stage', '2', '--json').stdout));
    const open = Answer.parse(
      JSON.parse(flarik('coverage', demo('ks-12'), '--stage', '2', '--open', 'hatch', '--json').stdout),
    );
    expect(shut.bearings.map((b) => b.bearingDeg)).toEqual(Array.from({ length: 360 }, (_, b) => b));
    expect(open.bearings[180]?.powerCdsPerMin).toBeLessThan((shut.bearings[180]?.powerCdsPerMin ?? 0) / 10);
  });

  test('a colour alone, at an elevation, as text', () => {
    const { exitCode: code, stdout } = flarik(
      'coverage',
      demo('ks-12'),
      '--stage',
      '1',
      '--colour',
      'green',
      '--elevation',
      '3',
    );
    expect(code).toBe(0);
    expect(stdout.trim().split('\n')).toHaveLength(361);
    expect(stdout).toMatch(/ 180 +0\.0 +0$/m);
  });
});

describe('geometry', () => {
  const Answer = z.object({
    solids: z.array(
      z.object({ id: z.string(), verticesM: z.array(z.array(z.number())), faces: z.array(z.array(z.int())) }),
    ),
    housings: z.array(z.object({ lamp: z.string(), verticesM: z.array(z.array(z.number())) })),
    channels: z.array(
      z.object({
        id: z.string(),
        positionM: z.array(z.number()),
        aim: z.array(z.number()),
        colour: z.string(),
        lensOfColour: z.number(),
      }),
    ),
  });

  test('every lamp that stands there has a housing of eight corners, and each channel its lens', () => {
    const build = z
      .looseObject({
        placements: z.array(
          z.looseObject({ id: z.string(), status: z.string(), modules: z.array(z.looseObject({})) }),
        ),
      })
      .parse(JSON.parse(readFileSync(demo('shore-medic-7'), 'utf8')));
    const [first] = build.placements;
    if (first === undefined) throw new Error('the medic has lamps');
    const changed = {
      ...build,
      placements: build.placements.map((p, i) =>
        i === 0
          ? {
              ...p,
              lensByColour: { red: 0.4 },
              // The first module has a lens of its own.
              modules: p.modules.map((m, k) => (k === 0 ? { ...m, lens: { red: 0.7 } } : m)),
            }
          : i === 1
            ? { ...p, status: 'planned' }
            : p,
      ),
    };
    const path = file('lenses.json', JSON.stringify(changed));
    const answer = Answer.parse(JSON.parse(flarik('geometry', path, '--json').stdout));
    const standing = changed.placements.filter(({ status }) => status !== 'removed' && status !== 'planned');
    expect(answer.housings.map(({ lamp }) => lamp)).toEqual(standing.map(({ id }) => id));
    for (const { verticesM } of answer.housings) expect(verticesM).toHaveLength(8);
    const lenses = answer.channels.filter(({ id }) => id.startsWith(`${first.id}/`));
    const own = String(first.modules[0]?.id);
    for (const { id, colour, lensOfColour } of lenses)
      expect(lensOfColour).toBe(colour !== 'red' ? 1 : id.startsWith(`${first.id}/${own}/`) ? 0.7 : 0.4);
  });

  test('solids name their corners; channels have place and aim', () => {
    const answer = Answer.parse(JSON.parse(flarik('geometry', demo('ks-12'), '--json').stdout));
    expect(answer.solids.length).toBeGreaterThan(35);
    for (const s of answer.solids) for (const i of s.faces.flat()) expect(s.verticesM[i]).toHaveLength(3);
    for (const c of answer.channels) expect(Math.hypot(...c.aim)).toBeCloseTo(1, 9);
  });
});

describe('list', () => {
  const parse = (...args: string[]): unknown => JSON.parse(flarik('list', ...args, '--json').stdout);

  test('the thirteen bodies with their measures and options', () => {
    const bodies = z
      .array(
        z.looseObject({
          id: z.string(),
          dimensions: z.array(z.looseObject({})),
          options: z.array(z.unknown()),
        }),
      )
      .parse(parse('bodies'));
    expect(bodies).toHaveLength(13);
    expect(bodies.every((b) => b.dimensions.length >= 8 && b.options.length > 0)).toBe(true);
  });

  test('the fixtures of the catalogue, and the zones of a vehicle', () => {
    const fixtures = z.array(z.looseObject({ id: z.string() })).parse(parse('fixtures'));
    expect(fixtures.length).toBeGreaterThanOrEqual(45);
    const zones = z
      .array(z.looseObject({ id: z.string(), widthM: z.number() }))
      .parse(parse('zones', demo('tunnel-pumper-3')));
    expect(zones.some((zone) => zone.id === 'box-upper-left')).toBe(true);
    const patterns = z
      .array(z.looseObject({ id: z.string(), figures: z.looseObject({ cyclesPerMinute: z.number() }) }))
      .parse(parse('patterns'));
    expect(patterns.find((p) => p.id === 'double')?.figures.cyclesPerMinute).toBe(75);
    const text = flarik('list', 'zones', demo('ks-12'));
    expect(text.stdout).toMatch(/^rear-bumper\s/m);
  });
});

describe('photometry and export', () => {
  test('one lamp alone, with the angles apart from their option', () => {
    const out = join(folder, 'lamp.ies');
    const written = flarik('export', demo('ks-12'), '--lamp', 'grille', '--stage', '3', '--ies', out);
    expect(written).toMatchObject({ exitCode: 0, stderr: '' });
    const cdAt = (angles: string): number =>
      z
        .object({ cd: z.number() })
        .parse(JSON.parse(flarik('photometry', out, '--at', angles, '--upright', '--json').stdout)).cd;
    expect(cdAt('0,0')).toBeGreaterThan(100);
    expect(cdAt('-170,0')).toBe(0);
  });

  test('the vehicle written as IES reads back with the ring it came from', () => {
    const out = join(folder, 'ks12.ies');
    const written = flarik('export', demo('ks-12'), '--stage', '2', '--ies', out);
    expect(written).toMatchObject({ exitCode: 0, stderr: '' });
    const at = (angles: string) => flarik('photometry', out, `--at=${angles}`, '--upright', '--json');
    const ahead = z.object({ cd: z.number() }).parse(JSON.parse(at('0,0').stdout));
    const left = z.object({ cd: z.number() }).parse(JSON.parse(at('-90,0').stdout));
    const ring = z
      .object({ bearings: z.array(z.object({ powerCdsPerMin: z.number() })) })
      .parse(JSON.parse(flarik('coverage', demo('ks-12'), '--stage', '2', '--json').stdout)).bearings;
    expect(ahead.cd).toBeCloseTo((ring[0]?.powerCdsPerMin ?? 0) / 60, 2);
    expect(left.cd).toBeCloseTo((ring[270]?.powerCdsPerMin ?? 0) / 60, 2);
  });
});

describe('bad input is one sentence and exit 2', () => {
  test.each<[string, () => string[], RegExp]>([
    ['no command', () => [], /flarik check FILE/],
    ['an unknown command', () => ['paint', demo('ks-12')], /^no command 'paint'/],
    ['an unknown option', () => ['check', demo('ks-12'), '--loud'], /^Unknown option '--loud'\n$/],
    [
      'no such file',
      () => ['check', '/nowhere.json'],
      /^\/nowhere\.json: there is no such file or folder\n$/,
    ],
    ['a folder', () => ['check', folder], /: is a folder, not a file\n$/],
    [
      'a table that is to be written nowhere',
      () => ['program', demo('ks-12'), '--program', '/nowhere/x.csv'],
      /^\/nowhere\/x\.csv: there is no such file or folder\n$/,
    ],
    [
      'light that is to be written over a folder',
      () => ['export', demo('ks-12'), '--ies', folder],
      /: is a folder, not a file\n$/,
    ],
    [
      'fog that is seen through less than not at all',
      () => ['veil', demo('ks-12'), '--stage', '1', '--visibility', '-5'],
      /^--visibility: must be .*, not '-5'\n$/,
    ],
    [
      'broken JSON',
      () => ['check', file('broken.json', '{"format":')],
      /broken\.json: the build file is not valid JSON/,
    ],
    [
      '50 MB',
      () => ['check', file('big.json', ' '.repeat(50 * 1024 * 1024))],
      /big\.json: the build file is too large: 50\.0 MB, at most 4 MB/,
    ],
    [
      'a newer schema',
      () => [
        'check',
        file(
          'newer.json',
          readFileSync(demo('ks-13'), 'utf8').replace(/"schemaVersion": \d+/, '"schemaVersion": 99'),
        ),
      ],
      /schemaVersion: the build was written by a newer Flarik/,
    ],
    [
      'a bad stage',
      () => ['coverage', demo('ks-12'), '--stage', '7'],
      /^--stage: must be one of 0 \(Off\), 1 \(Stage 1\), 2 \(Stage 2\), 3 \(Stage 3\), not '7'/,
    ],
    [
      'an unknown part',
      () => ['coverage', demo('ks-12'), '--stage', '1', '--open', 'trunk'],
      /^--open: nothing opens as 'trunk'; this vehicle has hatch, bonnet/,
    ],
    [
      'a bad colour',
      () => ['coverage', demo('ks-12'), '--stage', '1', '--colour', 'beige'],
      /^--colour: must be one of red/,
    ],
    [
      'no bearing',
      () => ['waveform', demo('ks-12'), '--stage', '1'],
      /^--bearing: must be 0 to below 360 degrees/,
    ],
    [
      'a bad threshold',
      () => ['waveform', demo('ks-12'), '--stage', '1', '--bearing', '10', '--threshold', '-3'],
      /threshold/,
    ],
    ['zones of no build', () => ['list', 'zones'], /zones/],
    ['an unknown list', () => ['list', 'colours'], /bodies, fixtures or zones|bodies, fixtures, zones/],
    [
      'a lamp that is not there',
      () => ['export', demo('ks-12'), '--ies', join(folder, 'no.ies'), '--lamp', 'nobody'],
      /^--lamp: /,
    ],
    ['an angle that is none', () => ['photometry', file('one.ies', ''), '--at', 'x,y'], /one\.ies|--at/],
    [
      'a bad elevation',
      () => ['coverage', demo('ks-12'), '--stage', '1', '--elevation', 'up'],
      /^--elevation: must be/,
    ],
    ...['1e0', '0x5', 'Infinity', '+-1', ' '].map((figure): [string, () => string[], RegExp] => [
      `a figure written as '${figure}'`,
      () => ['coverage', demo('ks-12'), '--stage', '1', '--elevation', figure],
      /^--elevation: (must be|is empty)/,
    ]),
    [
      'text that is not UTF-8',
      () => [
        'check',
        file('utf16.json', Buffer.from(`\uFEFF${readFileSync(demo('ks-13'), 'utf8')}`, 'utf16le')),
      ],
      /utf16\.json: is not UTF-8 text; save it as UTF-8\n$/,
    ],
    [
      'links in a circle',
      () => {
        const [here, there] = [join(folder, 'here.json'), join(folder, 'there.json')];
        symlinkSync(here, there);
        symlinkSync(there, here);
        return ['check', here];
      },
      /here\.json: is a link that leads round in a circle\n$/,
    ],
  ])('%s', (_, args, message) => {
    const { exitCode: code, stdout, stderr } = flarik(...args());
    expect(code).toBe(2);
    expect(stdout).toBe('');
    expect(stderr).toMatch(message);
    expect(stderr).not.toMatch(/^\s+at /m);
  });
});

describe('simulate', () => {
  const Steps = z.object({
    steps: z.array(
      z.object({
        event: z.string().nullable(),
        refused: z.boolean(),
        atMs: z.number(),
        on: z.array(z.string()),
        loads: z.record(z.string(), z.string()),
        lit: z.array(z.object({ lamp: z.string(), colour: z.string(), by: z.string() })),
      }),
    ),
  });
  const simulated = (build: string, ...args: string[]) => {
    const { exitCode, stdout } = flarik('simulate', demo(build), ...args, '--json');
    expect(exitCode).toBe(0);
    return Steps.parse(JSON.parse(stdout)).steps;
  };

  test('after each event, what is on and what lights by which function', () => {
    const steps = simulated('ks-13', '--events', 'ignition=on, slide=2, key-white=press, wait=500');
    expect(steps.map(({ event, on }) => [event, on.join('+')])).toEqual([
      [null, ''],
      ['ignition=on', 'off'],
      ['slide=2', 'stage-2'],
      ['key-white=press', 'white+stage-2'],
      ['wait=500', 'white+stage-2'],
    ]);
    expect(steps[2]?.lit.every(({ by }) => by === 'stage-2')).toBe(true);
    expect(steps[3]?.lit.some(({ by, colour }) => by === 'white' && colour === 'white')).toBe(true);
    expect(steps.at(-1)?.atMs).toBe(500);
  });

  test('what does not happen is told, and changes nothing', () => {
    const steps = simulated('ks-13', '--events', 'ignition=on, ignition=on');
    expect(steps.map(({ refused }) => refused)).toEqual([false, false, true]);
    expect(steps[2]?.on).toEqual(steps[1]?.on);
    const { stdout } = flarik('simulate', demo('ks-13'), '--events', 'ignition=on, ignition=on');
    expect(stdout).toMatch(/^ {6}0 ms {2}initial state {16}Nothing on, siren: off; 0 channels lit/);
  });

  test.each([
    'ks-12',
    'ks-13',
    'coast-watch',
    'tunnel-pumper-3',
    'shore-medic-7',
    'incident-command',
    'lift-bridge-crew',
    'line-marking',
    'ferry-slip',
  ])('every trial of %s ends as it was kept', (name) => {
    const Build = z.object({
      controls: z.object({ trials: z.array(z.object({ id: z.string(), on: z.array(z.string()) })) }),
    });
    const { trials } = Build.parse(JSON.parse(readFileSync(demo(name), 'utf8'))).controls;
    expect(trials.length).toBeGreaterThan(0);
    for (const { id, on } of trials) expect(simulated(name, '--test', id).at(-1)?.on, id).toEqual(on);
  });

  test.each([
    [['--events', 'slide=9'], /^--events\[0\]: 'slide' is never '9', only off, 1, 2, 3/],
    [['--test', 'ghost'], /^--test: no test 'ghost'; known are slide/],
    [[], /^simulate: give events: --events "slide=2, wait=1000", or --test ID/],
  ])('%j is one sentence and exit 2', (args, message) => {
    const { exitCode, stderr } = flarik('simulate', demo('ks-13'), ...args);
    expect(exitCode).toBe(2);
    expect(stderr).toMatch(message);
  });

  test('several functions at once, by their ids', () => {
    const { exitCode, stdout } = flarik('coverage', demo('ks-13'), '--on', 'stage-2,white', '--json');
    expect(exitCode).toBe(0);
    expect(JSON.parse(stdout)).toMatchObject({ state: { on: ['stage-2', 'white'] } });
    expect(flarik('coverage', demo('ks-13'), '--on', 'ghost').stderr).toMatch(/^--on: no function 'ghost'/);
  });

  test('the programme goes out as a table', () => {
    const out = join(folder, 'programme.csv');
    expect(flarik('program', demo('incident-command'), '--program', out).exitCode).toBe(0);
    const lines = readFileSync(out, 'utf8').trimEnd().split('\n');
    expect(lines[0]).toMatch(/^rank,function,number,label,kind,mode,on,target,shows/);
    expect(lines.some((line) => line.includes('Command green') && line.includes('All with green'))).toBe(
      true,
    );
  });
});

describe('options', () => {
  const OPTIONS = [...new Set(COMMANDS.flatMap(({ call }) => call.match(/--[a-z][a-z-]*/gu) ?? []))];
  const flags = new Set(['--json', '--csv', '--upright']);

  test.each(COMMANDS.map(({ name, call }) => [name, call] as const))(
    '%s refuses every option that it does not use',
    (name, call) => {
      const unused = OPTIONS.filter((option) => !call.includes(option));
      expect(unused.length).toBeGreaterThan(5);
      for (const option of unused) {
        const { exitCode, stderr } = flarik(
          name,
          demo('ferry-slip'),
          option,
          ...(flags.has(option) ? [] : ['1']),
        );
        expect(exitCode, option).toBe(2);
        expect(stderr).toContain(`${option}: '${name}' does not use it; it takes `);
      }
    },
  );

  test.each<[readonly string[], string]>([
    [['--stage', '1', '--stage', '2'], '--stage: is given twice'],
    [['--on='], '--on: is empty'],
    [['--stage', '1', '--on', 'stage-2'], '--stage: cannot be combined with --on'],
  ])('%j is refused', (options, why) => {
    expect(flarik('coverage', demo('ferry-slip'), ...options)).toEqual({
      exitCode: 2,
      stdout: '',
      stderr: `${why}\n`,
    });
  });

  test('a corner says each thing once', () => {
    const { exitCode, stderr } = flarik(
      'junction',
      demo('ks-13'),
      '--stage',
      '2',
      '--corner',
      'from=left,from=right',
    );
    expect(exitCode).toBe(2);
    expect(stderr).toBe("--corner: 'from' is given twice\n");
  });

  test.each([
    ['program', '--program'],
    ['export', '--ies'],
  ])('%s never writes over what it reads', (name, option) => {
    const text = readFileSync(demo('ferry-slip'), 'utf8');
    const path = file(`${name}.json`, text);
    const { exitCode, stderr } = flarik(name, path, option, path);
    expect(exitCode).toBe(2);
    expect(stderr).toContain('is the file that is read: it would be lost');
    expect(readFileSync(path, 'utf8')).toBe(text);
  });
});
