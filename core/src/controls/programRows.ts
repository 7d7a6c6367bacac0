import type { Build } from '../design/schema.ts';
import { escaped } from '../words/cell.ts';
import { Wording } from './sentence.ts';

/** Its columns, in the order they are written in. */
export const PROGRAM_COLUMNS = [
  'rank',
  'function',
  'number',
  'label',
  'kind',
  'mode',
  'on',
  'target',
  'shows',
  'level_percent',
  'night_level_percent',
] as const;

/** The programme as a table for whoever programmes the controller: a row for each cue, dim and load, strongest first. */
export function programRows(build: Build): string[][] {
  const wording = new Wording(build);
  const percent = (share: number) => String(Math.round(share * 100));
  return build.controls.functions.flatMap((fn, rank) =>
    fn.shows.flatMap((shown, i) => {
      const head = [
        String(rank + 1),
        fn.name,
        fn.when.way === 'cycle' ? String(i + 1) : '',
        fn.label,
        fn.kind,
        fn.mode === null ? '' : String(fn.mode),
        wording.when(fn),
      ];
      const cues = shown.cues.map((cue) =>
        cue.show === 'light'
          ? [
              wording.target(cue.target),
              wording.cue(cue),
              percent(cue.level),
              percent(cue.level * cue.nightLevel),
            ]
          : [wording.target(cue.target), wording.cue(cue), '', ''],
      );
      const dims = shown.dims.flatMap((dim) =>
        dim.targets.map((target) => [
          wording.target(target),
          'dimmed',
          percent(dim.factor),
          percent(dim.factor),
        ]),
      );
      const loads = shown.loads.map(({ loadId, value }) => [
        build.controls.loads.find((l) => l.id === loadId)?.name ?? 'deleted output',
        value,
        '',
        '',
      ]);
      const lines = [...cues, ...dims, ...loads];
      return (lines.length === 0 ? [['', 'nothing', '', '']] : lines).map((line) =>
        [...head, ...line].map(escaped),
      );
    }),
  );
}
