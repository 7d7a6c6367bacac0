import type { ChannelRef, ModuleRef } from '../../design/schema.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import { COLOURS, type Colour } from '../../words/colour.ts';
import { listed } from '../../words/listed.ts';
import type { VerificationFinding, VerificationCheck } from '../found.ts';
import type { VerificationSubject } from '../subject.ts';
import { about } from '../../rules/subject.ts';

/** Of many lamps so many are named. */
const MOST_NAMED = 4;

/** Lamps, modules and colours that no function lights in any state. Disabled colours are left out. */
export const unlit: VerificationCheck = {
  kind: 'unlit',
  severity: 'advises',
  clause: 'Every lamp, module and colour is lit by some function',
  find: (subject) => {
    const lit = new Set(
      [...subject.everyCase()].flatMap(({ drives, module }) =>
        drives.map(({ colour }) => `${keyOf(module)} ${colour}`),
      ),
    );
    const lamps: ChannelRef[] = [];
    const modules: ChannelRef[] = [];
    const colours = new Map<Colour, ChannelRef[]>();
    for (const channels of channelsByLamp(subject)) {
      const litModules = new Set(channels.filter((c) => lit.has(`${keyOf(c)} ${c.colour}`)).map(keyOf));
      for (const { colour, ...channel } of channels) {
        const key = keyOf(channel);
        if (litModules.size === 0) lamps.push(channel);
        else if (!litModules.has(key)) modules.push(channel);
        else if (!lit.has(`${key} ${colour}`)) colours.set(colour, [...(colours.get(colour) ?? []), channel]);
      }
    }
    const bounded = subject.whole.within === null ? {} : ({ outcome: 'cannot tell' } as const);
    const found = (topic: string, channels: readonly ChannelRef[], sentence: string): VerificationFinding[] =>
      channels.length === 0 ? [] : [{ subjects: [about('topic', topic)], sentence, channels, ...bounded }];
    const count = new Set(modules.map(keyOf)).size;
    return [
      ...found('lamps', lamps, `No function lights ${namedIn(subject, lamps)}.`),
      ...found(
        'modules',
        modules,
        `No function lights ${count} ${count === 1 ? 'module' : 'modules'} of ${namedIn(subject, modules)}.`,
      ),
      ...COLOURS.flatMap((colour) => {
        const of = colours.get(colour) ?? [];
        return found(
          colour,
          of,
          `No function shows ${colour} on ${namedIn(subject, of)}. Disable the colour there, or let a function show it.`,
        );
      }),
    ];
  },
};

const keyOf = ({ placementId, moduleId }: ModuleRef): string => `${placementId}/${moduleId}`;

/** By lamp that may light, every channel that its modules may show here. */
function channelsByLamp({
  build,
  showing,
}: VerificationSubject): (ChannelRef & { readonly colour: Colour })[][] {
  const lookup = lookupOf(build);
  const mayLight = new Set(showing.modules.map(keyOf));
  return build.placements.map((p) =>
    p.modules.flatMap((setup) => {
      const ref = { placementId: p.id, moduleId: setup.id };
      if (!mayLight.has(keyOf(ref))) return [];
      const outputs = lookup.outputs(lookup.fixture(p.fixtureId), setup);
      return setup.colours.flatMap((colour, i) =>
        outputs[colour] === undefined || setup.disabled.includes(colour)
          ? []
          : [{ ...ref, slot: i + 1, colour }],
      );
    }),
  );
}

/** Lamps by name, the first few of them: "A, B, C and 3 more". */
function namedIn(subject: VerificationSubject, of: readonly ModuleRef[]): string {
  const names = [...new Map(of.map((m) => [m.placementId, subject.labelOf(m)])).values()];
  const first = names.slice(0, MOST_NAMED);
  return listed(
    names.length > MOST_NAMED ? [...first, `${names.length - MOST_NAMED} more lamps`] : first,
    'and',
  );
}
