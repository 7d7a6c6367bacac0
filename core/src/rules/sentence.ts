import { serviceName } from '../words/service.ts';
import type { Rule } from './pack.ts';

const list = (items: readonly (string | number)[]): string => items.join(', ');

const poseText = {
  shut: 'everything shut',
  'each-door-open': 'each door open',
  'hatch-open': 'the hatch open',
  'bonnet-open': 'the bonnet open',
  'each-shutter-open': 'each shutter open',
} as const;

/** A rule as a plain sentence. */
export function ruleSentence(rule: Rule): string {
  const stages = `stage ${list(rule.stages)}`;
  const who = rule.services.length === 0 ? '' : ` (${list(rule.services.map((s) => serviceName[s]))})`;
  return `${body(rule)}, in ${stages}${who}.`;
}

function body(rule: Rule): string {
  switch (rule.kind) {
    case 'colour': {
      const light = rule.light === 'any' ? 'light' : `${rule.light} light`;
      const verdict =
        rule.verdict === 'only' ? `Only ${list(rule.colours)} ${light}` : `No ${list(rule.colours)} ${light}`;
      return `${verdict} above ${rule.aboveCd} cd to the ${list(rule.faces)}, doors and hatch in any position`;
    }
    case 'flash-rate':
      return `Between ${rule.minPerMinute} and ${rule.maxPerMinute} flashes a minute`;
    case 'power-floor': {
      const level = rule.level === 'any' ? '' : ` from ${rule.level} lamps`;
      const when = rule.ambient === 'any' ? '' : ` by ${rule.ambient}`;
      const poses = list(rule.poses.map((p) => poseText[p]));
      return `At least ${rule.minCdsPerMin} cd·s/min${level} at every bearing to the ${list(rule.faces)}${when}, with ${poses}`;
    }
    case 'dark-gap':
      return `Never below ${rule.thresholdCd} cd for longer than ${rule.maxMs} ms to the ${list(rule.faces)}`;
    case 'white-rear':
      return `No white above ${rule.aboveCd} cd to the rear except reversing lamps`;
    case 'pulses':
      return `At most ${rule.most} pulses in one flash`;
    case 'side-dark':
      return `The lamps of one side are never dark together for longer than ${rule.maxMs} ms`;
    case 'flashes-a-second':
      return `At most ${rule.most} flashes in any second to the ${list(rule.faces)}, of lamps above ${rule.aboveCd} cd`;
    case 'power-ceiling': {
      const when = rule.ambient === 'any' ? '' : ` by ${rule.ambient}`;
      return `At most ${rule.maxCdsPerMin} cd·s/min at any bearing to the ${list(rule.faces)}${when}`;
    }
    case 'rhythms':
      return `At most ${rule.most} different rhythms seen from one direction, of lamps above ${rule.aboveCd} cd`;
    case 'peak-current':
      return `At most ${rule.maxA} A at the worst moment of the flashing`;
    case 'sync-partners':
      return 'Mirrored partners keep step: one sync group, equal cycles';
  }
}
