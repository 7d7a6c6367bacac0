import type { CabPlace, Panel } from '../../design/panel.ts';
import { atMost } from '../finding.ts';
import type { IssueDraft } from '../judgement.ts';
import type { LayoutSubject } from '../layout/subject.ts';
import { about } from '../subject.ts';

/** Panels with the room in the cab that they take, and how many take it. */
const housed = ({
  build: { controls },
}: LayoutSubject): { readonly panel: Panel; readonly room: CabPlace }[] =>
  controls.panels.flatMap((panel) => {
    const room = controls.cabPlaces.find(({ id }) => id === panel.cabPlaceId);
    return room === undefined ? [] : [{ panel, room }];
  });

const WAYS = [
  ['wide', 'widthMm'],
  ['high', 'heightMm'],
  ['deep', 'depthMm'],
] as const;

/** Panels larger than the room they are to take. A size of 0 was not measured. */
export const panelsTooLarge = (subject: LayoutSubject): IssueDraft[] =>
  housed(subject).flatMap(({ panel, room }) =>
    WAYS.flatMap(([way, size]): IssueDraft[] =>
      room[size] === 0 || panel[size] <= room[size]
        ? []
        : [
            {
              subjects: [about('panel', panel.id), about('topic', size)],
              sentence: `${panel.name}: ${panel[size]} mm ${way} (${room.name}: ${room[size]} mm).`,
              figure: { value: panel[size], unit: 'mm' },
              limits: [atMost(room[size], 'mm')],
            },
          ],
    ),
  );

/** Room that several panels take together beyond its width: they stand beside each other, or not at all. */
export function roomsTakenTwice(subject: LayoutSubject): IssueDraft[] {
  const all = housed(subject);
  return subject.build.controls.cabPlaces.flatMap((room): IssueDraft[] => {
    const there = all.filter((one) => one.room === room);
    const wide = there.reduce((sum, { panel }) => sum + panel.widthMm, 0);
    if (there.length < 2 || (room.widthMm > 0 && wide <= room.widthMm)) return [];
    const names = there.map(({ panel }) => panel.name).join(' and ');
    return [
      {
        subjects: [about('cab space', room.id)],
        sentence:
          room.widthMm === 0
            ? `${names} share ${room.name}. Its width is not entered.`
            : `${names} share ${room.name}: ${wide} mm together (available ${room.widthMm} mm).`,
        figure: { value: wide, unit: 'mm' },
        limits: room.widthMm === 0 ? [] : [atMost(room.widthMm, 'mm')],
      },
    ];
  });
}

/** Panels in the way of an airbag. */
export const airbagFaults = (subject: LayoutSubject): IssueDraft[] =>
  housed(subject)
    .filter(({ room }) => room.airbag)
    .map(({ panel, room }) => ({
      subjects: [about('panel', panel.id)],
      sentence: `${panel.name} is in ${room.name}, an airbag zone.`,
    }));

/** Panels that the driver works and cannot reach belted. */
export const outOfReach = (subject: LayoutSubject): IssueDraft[] =>
  housed(subject)
    .filter(({ panel, room }) => !room.reached && DRIVERS.some((place) => place === panel.place))
    .map(({ panel, room }) => ({
      subjects: [about('panel', panel.id)],
      sentence: `${panel.name} at ${room.name}: out of reach of the belted driver.`,
    }));

const DRIVERS: readonly Panel['place'][] = ['dash', 'console', 'overhead', 'hand-held'];

/** Panels that cannot be taken out again without taking the cab apart. */
export const builtIn = (subject: LayoutSubject): IssueDraft[] =>
  housed(subject)
    .filter(({ room }) => !room.replaceable)
    .map(({ panel, room }) => ({
      subjects: [about('panel', panel.id)],
      sentence: `${panel.name} at ${room.name} cannot be replaced without dismantling the cab.`,
    }));
