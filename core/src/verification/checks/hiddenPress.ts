import { drivenIn } from '../../state/driven.ts';
import { conditionsOf } from '../../design/inputs.ts';
import { leavesOf } from '../../design/condition.ts';
import type { InputEvent } from '../../design/condition.ts';
import type { ControlFunction } from '../../design/functions.ts';
import { onKey } from '../../design/controls.ts';
import { listed } from '../../words/listed.ts';
import { nearestChange } from '../changes.ts';
import { NONE, type Diagram } from '../diagrams.ts';
import type { VerificationFinding, VerificationCheck } from '../found.ts';
import { AMBIENTS } from '../../words/ambient.ts';
import { replayed, type RepresentativeState } from '../representative.ts';
import type { VerificationSubject } from '../subject.ts';
import type { Drive } from '../../resolve/channels.ts';
import type { ChannelRequest } from '../../resolve/showing.ts';
import { about } from '../../rules/subject.ts';

/**
 * A key that turns a function on, and no lamp changes: a stronger function has taken all that it lights. What cuts, dims and
 * signals is left out, on both sides: hiding others is what these are for.
 */
export const hiddenPress: VerificationCheck = {
  kind: 'hidden-press',
  severity: 'advises',
  clause: 'A key that turns a light on changes some lamp',
  find: (subject) => {
    const asked = new Set(
      conditionsOf(subject.build.controls).flatMap((c) =>
        [...leavesOf(c)].flatMap((leaf) => (leaf.kind === 'on' ? [leaf.functionId] : [])),
      ),
    );
    return subject.functions.flatMap((fn): VerificationFinding[] => {
      const keys = new Set(pressesOf(fn).map((e) => JSON.stringify(e)));
      const on = onKey(fn.id, 1);
      if (keys.size === 0 || !isMeantToShow(subject, fn) || asked.has(fn.id) || subject.isLoading(on))
        return [];
      if (subject.litBy(fn).length === 0) return [];
      const { diagrams: d, whole } = subject;
      const others = subject.functions
        .filter(({ kind }) => kind === 'cut' || kind === 'signal')
        .map(({ id }) => isOnAt(subject, id));
      const clear = d.not(d.any(others));
      const isOn = isOnAt(subject, fn.id);
      const where = nearestChange(subject, whole, {
        from: d.and(d.not(isOn), clear),
        to: d.all([isOn, clear, takenByOne(subject, on), hidden(subject, on)]),
        by: ({ event }) => keys.has(JSON.stringify(event)),
      });
      if (where === null || !isUnchanged(subject, where)) return [];
      const by = takers(subject, fn, where);
      if (by.length === 0) return [];
      return [
        {
          subjects: [about('function', fn.id)],
          sentence: `${fn.name} switches on without changing a lamp: ${listed(by, 'and')} ${by.length === 1 ? 'overrides' : 'override'} every lamp it lights. Raise its priority, or release lamps in the other function.`,
          where,
        },
      ];
    });
  },
};

/** What shows light and is not meant for when nothing stronger does: that ranks below the stages. */
function isMeantToShow({ functions }: VerificationSubject, { id, kind }: ControlFunction): boolean {
  const rank = functions.findIndex((fn) => fn.id === id);
  return (
    kind === 'light' ||
    (kind === 'warning' && functions.slice(rank).some((fn) => fn.kind === 'stage' && fn.mode !== 0))
  );
}

/** Presses that turn a function on. */
function pressesOf({ when }: ControlFunction): InputEvent[] {
  const events =
    when.way === 'latched'
      ? [...when.sets, ...when.toggles]
      : when.way === 'cycle'
        ? [...when.sets, ...when.steps]
        : [];
  return events.filter(({ kind }) => kind !== 'arrives');
}

const isOnAt = ({ program }: VerificationSubject, id: string): Diagram =>
  program.present.isOn(program.wired.rankOf(id) ?? -1);

/** The states in which one other function has taken every module that a function would light. */
function takenByOne(subject: VerificationSubject, on: string): Diagram {
  const { diagrams: d, showing } = subject;
  return d.any(
    AMBIENTS.flatMap((ambient) => {
      const wants = showing.wants(on, ambient);
      const isMine = (index: number): boolean => (wants[index]?.claims.length ?? 0) > 0;
      const mine = subject.cells.filter((cell) => cell.ambient === ambient && cell.modules.some(isMine));
      const others = new Set(mine.flatMap(({ answers }) => answers.flatMap((a) => takersIn(a.drives))));
      others.delete(on);
      return [...others].map((other) => {
        const byOther = mine.map((cell) =>
          d.any(
            cell.answers
              .filter(({ drives }) =>
                cell.modules.every(
                  (index, i) =>
                    !isMine(index) ||
                    ((drives[i] ?? []).length > 0 && (drives[i] ?? []).every((drive) => drive.on === other)),
                ),
              )
              .map(({ when }) => when),
          ),
        );
        return subject.statesWhere(mine.length === 0 ? NONE : d.all(byOther), ambient);
      });
    }),
  );
}

const takersIn = (drives: readonly (readonly Drive[])[]): string[] => drives.flat().map((drive) => drive.on);

/** The states in which some module that a function would light shows something else. */
function hidden(subject: VerificationSubject, on: string): Diagram {
  const { diagrams: d, program, showing } = subject;
  return d.any(
    subject.cells
      .filter((cell) => cell.heeds.includes(on))
      .map((cell) => {
        const wants = showing.wants(on, cell.ambient);
        const others = cell.answers.filter(({ drives }) =>
          cell.modules.some((index, i) => isOther(wants[index] ?? null, drives[i] ?? [])),
        );
        const ons = d.any(others.map(({ when }) => d.and(when, program.onVariable(on))));
        return subject.statesWhere(ons, cell.ambient);
      }),
  );
}

/** Whether a module shows other light than is wanted of it. */
const isOther = (want: ChannelRequest | null, drives: readonly Drive[]): boolean =>
  want !== null &&
  want.claims.length > 0 &&
  !want.claims.some(({ drive }) =>
    drives.some(({ colour, patternId }) => colour === drive.colour && patternId === drive.patternId),
  );

/** Whether the last event of a way changes nothing that lights, played from rest. */
function isUnchanged(subject: VerificationSubject, where: RepresentativeState): boolean {
  const before = replayed(subject.programme, where.events.slice(0, -1));
  const text = (state: RepresentativeState): string =>
    JSON.stringify(drivenIn(subject.build, subject.stateAt(state)).map((drive) => ({ ...drive, on: '' })));
  return text(before) === text(where);
}

/** The names of what takes lamps that a function would light. */
function takers(subject: VerificationSubject, fn: ControlFunction, where: RepresentativeState): string[] {
  const mine = new Set(subject.litBy(fn).map((m) => `${m.placementId}/${m.moduleId}`));
  const by = drivenIn(subject.build, subject.stateAt(where))
    .filter((drive) => mine.has(`${drive.placementId}/${drive.moduleId}`))
    .map((drive) => subject.functionOf(drive.on));
  return [...new Set(by.filter(({ id }) => id !== fn.id).map(({ name }) => name))];
}
