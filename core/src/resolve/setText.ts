import type { LampSet, LampUse, SetClause, SetPick, SetRule } from '../design/lampSets.ts';
import type { Build } from '../design/schema.ts';
import { listed } from '../words/listed.ts';
import { lookupOf } from './lookup.ts';

/** Lamps by what they are fitted for, as people call them. */
export const USES: Readonly<Record<LampUse, string>> = {
  warning: 'warning lamps',
  light: 'scene, work and cabin lights',
  factory: 'factory lamps',
};

/** Which of the lamps that meet all conditions are taken; all of them for an empty text. */
export const PICKS: Readonly<Record<SetPick, string>> = {
  all: '',
  highest: 'of these the highest',
  inner: 'of these the inner half of the highest',
  foremost: 'of these the highest, foremost lamp',
  stop: 'of these only those beside the stop lamps, or else the lowest',
  reverse: 'of these only those beside the reversing lamps, or else the lowest',
};

const sentence = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** What a rule chooses, as a sentence without a full stop: "Warning lamps that can show white and shine to the front". */
export function ruleText(build: Build, { clauses, pick }: SetRule): string {
  const whose = clauses.filter((c) => c.about === 'use' && !c.not);
  const others = clauses.filter((c) => !whose.includes(c));
  const noun =
    whose.length === 1 && whose[0]?.about === 'use' ? listed(namesOf(build, whose[0]), 'and') : 'lamps';
  const text = [...(whose.length > 1 ? whose : []), ...others].map((c) => clauseText(build, c)).join(' and ');
  const which = PICKS[pick];
  return sentence(
    `${noun === 'lamps' && text === '' ? 'all lamps' : noun}${text === '' ? '' : ` that ${text}`}${which === '' ? '' : `; ${which}`}`,
  );
}

/** What a set is: its rule as a sentence, or that it is a fixed list, and what was added or excluded by hand. */
export function setText(build: Build, { rule, modules, without }: LampSet): string {
  if (rule === null) return 'Fixed list';
  const by = [
    ...(modules.length > 0 ? [`${modules.length} added by hand`] : []),
    ...(without.length > 0 ? [`${without.length} excluded by hand`] : []),
  ];
  return [ruleText(build, rule), ...by].join('; ');
}

/** What a condition names, as people call it. */
export function namesOf(build: Build, c: SetClause): string[] {
  const { vehicle } = lookupOf(build);
  switch (c.about) {
    case 'use':
      return c.of.map((use) => USES[use]);
    case 'group':
      return c.of.map((id) =>
        id === null ? 'none' : (build.timing.groups.find((g) => g.id === id)?.name ?? 'a deleted group'),
      );
    case 'zone':
      return c.of.map((id) => vehicle.zones.find((z) => z.id === id)?.name ?? 'a removed zone');
    case 'part':
      return c.of.map((id) => vehicle.parts.find((p) => p.id === id)?.name ?? 'a removed part');
    case 'colour':
    case 'shines':
    case 'side':
    case 'tied':
    case 'beside':
      return [...c.of];
  }
}

/** A stop as people call it: "Hatch open". */
export function stopName(build: Build, stop: string): string {
  const part = lookupOf(build).vehicle.parts.find((p) => p.stops.some(({ id }) => id === stop));
  const name = part?.stops.find(({ id }) => id === stop)?.name;
  return part === undefined || name === undefined ? 'a removed part open' : `${part.name} ${name}`;
}

/** "can show white", "are not on the left". */
function clauseText(build: Build, c: SetClause): string {
  const names = listed(namesOf(build, c), 'or');
  const be = c.not ? 'are not' : 'are';
  switch (c.about) {
    case 'use':
      return `${be} ${names}`;
    case 'colour':
      return `${c.not ? 'cannot' : 'can'} show ${names}`;
    case 'shines': {
      const poses = [...(c.closed ? ['everything closed'] : []), ...c.stops.map((id) => stopName(build, id))];
      const usual = c.closed && c.stops.length === 0;
      return `${c.not ? 'do not shine' : 'shine'} to the ${names}${usual ? '' : ` with ${listed(poses, 'or')}`}`;
    }
    case 'side':
      return `${be} ${c.of.length === 1 && c.of[0] === 'middle' ? 'in' : 'on'} the ${names}`;
    case 'group':
      return `${be} in sync group ${names}`;
    case 'zone':
      return `${be} on ${names}`;
    case 'part':
      return c.covered ? `${be} hidden by ${names} while it is closed` : `${be} carried by ${names}`;
    case 'tied':
      return `${be} tied into ${names} lamps`;
    case 'beside':
      return `${be} beside ${names} lamps`;
  }
}
