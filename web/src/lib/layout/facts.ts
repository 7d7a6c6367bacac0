import { formatNumber } from '@flarik/core/words/quantity';
import { coloursOffered } from '@flarik/core/fixture/catalogue/catalogue';
import type { Fixture } from '@flarik/core/fixture/types';

/** What is compared of fixtures, in plain words. */
export interface Fact {
  readonly name: string;
  readonly of: (fixture: Fixture) => string;
}

const mm = (m: number): string => String(Math.round(m * 1000));
const round = (v: number): string => String(Math.round(v * 100) / 100);

/** The facts of a fixture by name, with money in this currency. */
export const factsIn = (currency: string): readonly Fact[] => [
  { name: 'Kind', of: (f) => f.kind },
  {
    name: 'Width × height × depth, mm',
    of: ({ sizeM: s }) => `${mm(s.width)} × ${mm(s.height)} × ${mm(s.depth)}`,
  },
  { name: 'Weight, kg', of: (f) => round(f.weightKg) },
  { name: 'Modules', of: (f) => `${f.modules.length}${f.slotted ? ', slot by slot' : ''}` },
  { name: 'Colours per module', of: (f) => String(f.colourSlots) },
  {
    name: 'Peak of a module, cd',
    of: (f) =>
      coloursOffered(f.outputs)
        .map((c) => `${c} ${Math.round(f.outputs[c]?.peakCd ?? 0)}`)
        .join(', '),
  },
  {
    name: 'Current of a module at 12.8 V, A',
    of: (f) =>
      [...new Set(coloursOffered(f.outputs).map((c) => round(f.outputs[c]?.currentA ?? 0)))].join(' or '),
  },
  {
    name: 'Half-intensity beam',
    of: ({ modules: [m] }) =>
      m === undefined
        ? ''
        : m.distribution.h50Deg === null
          ? `all round, ±${m.distribution.v50Deg}° up and down`
          : `±${m.distribution.h50Deg}° level, ±${m.distribution.v50Deg}° up and down`,
  },
  { name: 'Mounts on', of: (f) => f.mounts.join(', ') },
  { name: 'Holes', of: (f) => String(f.holes) },
  { name: 'Protection', of: (f) => f.protection },
  {
    name: 'Flashed by',
    of: ({ flasher: f }) =>
      f === null
        ? 'the controller’s outputs'
        : `own flasher (±${f.tolerancePercent} %), ${f.line === null ? 'no sync line' : `synchronised by a ${f.line}`}`,
  },
  { name: 'Voltage', of: (f) => f.volts.map((v) => `${v} V`).join(' or ') },
  { name: `Price, ${currency}`, of: (f) => formatNumber(f.priceMinor / 100, 2) },
  { name: 'In stock', of: (f) => String(f.inStock) },
  { name: 'Lead time', of: (f) => `${f.leadDays} days` },
  { name: 'Time to fit', of: (f) => `${f.installMinutes} min` },
];
