import { stopOf } from '@flarik/core/vehicle/vehicle';
import { goto } from '$app/navigation';
import type { Editor } from '$lib/editor/editor.svelte';
import { showFinding } from './showFinding';
import { STEPS } from './steps';

/** Something the finder can find, and what choosing it does. */
export interface Findable {
  readonly id: string;
  readonly kind: 'Go to' | 'State' | 'Command' | 'Lamp' | 'Zone' | 'Finding';
  readonly text: string;
  readonly run: () => void;
}

/** All that can be found in the open build. */
export function findables(editor: Editor): Findable[] {
  const { build, vehicle, state } = editor;
  const open = new Set(state.open);
  const toLayout = () => goto(`/builds/${build.id}/layout`);
  return [
    ...STEPS.map((step): Findable => ({
      id: `step ${step.id}`,
      kind: 'Go to',
      text: step.name,
      run: () => void goto(`/builds/${build.id}/${step.id}`),
    })),
    ...editor.named.map(({ on, name }): Findable => ({
      id: `function ${on}`,
      kind: 'State',
      text: name,
      run: () => editor.lookAtFunction(on),
    })),
    ...vehicle.parts.map((part): Findable => ({
      id: `part ${part.id}`,
      kind: 'State',
      text: `${stopOf(part, open) === null ? 'Open' : 'Move on'}: ${part.name.toLowerCase()}`,
      run: () => editor.moveOn(part.id),
    })),
    ...(['day', 'night'] as const).map((ambient): Findable => ({
      id: `ambient ${ambient}`,
      kind: 'State',
      text: ambient === 'day' ? 'Day' : 'Night',
      run: () => editor.setAmbient(ambient),
    })),
    ...(editor.undoLabel === null
      ? []
      : [
          {
            id: 'undo',
            kind: 'Command' as const,
            text: `Undo: ${editor.undoLabel}`,
            run: () => editor.undo(),
          },
        ]),
    ...(editor.redoLabel === null
      ? []
      : [
          {
            id: 'redo',
            kind: 'Command' as const,
            text: `Redo: ${editor.redoLabel}`,
            run: () => editor.redo(),
          },
        ]),
    ...build.placements.map((p): Findable => ({
      id: `lamp ${p.id}`,
      kind: 'Lamp',
      text: p.label,
      run: () => {
        editor.select([p.id]);
        void toLayout();
      },
    })),
    ...vehicle.zones.map((zone): Findable => ({
      id: `zone ${zone.id}`,
      kind: 'Zone',
      text: `${zone.name}: ${zone.behind}`,
      run: () => {
        editor.select(build.placements.filter((p) => p.zoneId === zone.id).map((p) => p.id));
        void toLayout();
      },
    })),
    ...editor.findings.map((finding): Findable => ({
      id: `finding ${finding.id}`,
      kind: 'Finding',
      text: finding.sentence,
      run: () => showFinding(editor, finding),
    })),
  ];
}

const MOST_SHOWN = 12;

/** Those whose text holds every word typed, in any order; what begins as typed comes first; the first few. */
export function matching(all: readonly Findable[], typed: string): Findable[] {
  const wanted = typed.trim().toLowerCase();
  const words = wanted.split(/\s+/).filter((word) => word !== '');
  const begins = ({ kind, text }: Findable): boolean =>
    text.toLowerCase().startsWith(wanted) || `${kind} ${text}`.toLowerCase().startsWith(wanted);
  const found = all.filter(({ kind, text }) => {
    const where = `${kind} ${text}`.toLowerCase();
    return words.every((word) => where.includes(word));
  });
  return [...found.filter(begins), ...found.filter((f) => !begins(f))].slice(0, MOST_SHOWN);
}
