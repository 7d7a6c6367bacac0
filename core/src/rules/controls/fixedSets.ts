import { likeButOutside } from '../../arrange/likeSet.ts';
import type { ControlFunction } from '../../design/functions.ts';
import type { IssueDraft } from '../judgement.ts';
import type { LayoutSubject } from '../layout/subject.ts';
import { about } from '../subject.ts';

/** Functions of kind cut and dim that address a fixed list, while lamps with all that its own have in common are outside. */
export function shortFixedSets({ build }: LayoutSubject): IssueDraft[] {
  const labels = new Map(build.placements.map((p) => [p.id, p.label]));
  return build.controls.functions
    .filter(({ kind }) => kind === 'cut' || kind === 'dim')
    .flatMap((fn) =>
      build.controls.sets
        .filter((set) => setIdsOf(fn).has(set.id))
        .flatMap((set): IssueDraft[] => {
          const outside = likeButOutside(build, set);
          const [first] = outside;
          if (first === undefined) return [];
          const count = `${outside.length} ${outside.length === 1 ? 'module' : 'modules'}`;
          return [
            {
              subjects: [about('function', fn.id), about('lamp set', set.id)],
              sentence: `${fn.name} uses the fixed lamp set ${set.name}. It omits ${count} of the same kind, such as ${labels.get(first.placementId) ?? 'a lamp'}. Add them or define the set by rule.`,
              channels: outside.map((m) => ({ ...m, slot: 1 })),
            },
          ];
        }),
    );
}

const setIdsOf = ({ shows }: ControlFunction): Set<string> =>
  new Set(
    shows
      .flatMap(({ cues, dims }) => [...cues.map((c) => c.target), ...dims.flatMap((d) => d.targets)])
      .flatMap((target) => (target.kind === 'set' ? [target.setId] : [])),
  );
