/** What pieces of a body are called, by what their ids begin with, side and number left out; others read as their id. */
const NAMES: ReadonlyMap<string, string> = new Map([
  ['pillar a', 'A-pillar'],
  ['pillar b', 'B-pillar'],
  ['pillar c', 'C-pillar'],
  ['pillar d', 'D-pillar'],
  ['quarter', 'quarter panel'],
  ['wing', 'front wing'],
  ['nose', 'front end'],
  ['nose side', 'front side panel'],
  ['wheel front', 'front wheel'],
  ['wheel rear', 'rear wheel'],
  ['box side', 'body side'],
  ['van side', 'side wall'],
  ['hoop', 'ladder rack hoop'],
  ['hoop post', 'ladder rack post'],
  ['under run', 'underrun guard'],
  ['rack mesh', 'headache rack mesh'],
  ['rack beam', 'headache rack beam'],
  ['rack post', 'headache rack post'],
  ['guard bar', 'bumper guard bar'],
  ['guard post', 'bumper guard post'],
]);
const SIDES = new Set(['left', 'right']);
/** Which piece of a part it is, as it stands before the part's name. */
const WHICH: ReadonlyMap<string, string> = new Map([
  ['above', 'upper'],
  ['upper', 'upper'],
  ['below', 'lower'],
]);
/** Numbers tell pieces of one part apart, and so does the last of a row. */
const isNumber = (word: string): boolean => /^\d+$/.test(word) || word === 'end';

/** A piece of a body in words, from the words of its id: "pillar b right upper" is the upper right B-pillar. */
export function partText(id: string): string {
  const words = id.split(/[ -]/).filter((word) => word !== '' && !isNumber(word));
  const at = words.findIndex((word) => SIDES.has(word));
  // The names of doors and flaps have their side where the trade puts it.
  if (at <= 0 || words.includes('door')) return NAMES.get(words.join(' ')) ?? id;
  const before = words.slice(0, at).join(' ');
  const after = words.slice(at + 1);
  const which = after.flatMap((word) => WHICH.get(word) ?? []);
  const rest = after.filter((word) => !WHICH.has(word));
  return [...which, words[at], NAMES.get(before) ?? before, ...rest].join(' ');
}
