import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { isOpening, sideOfPart } from './opening.ts';
import { vehicleOf } from './vehicle.ts';

const sides = (name: Parameters<typeof demoBuild>[0]) => {
  const vehicle = vehicleOf(demoBuild(name).vehicle);
  return Object.fromEntries(
    vehicle.parts
      .filter(({ kind }) => isOpening(kind))
      .map(({ id }) => [id, sideOfPart(vehicle, id)] as const),
  );
};

describe('where people stand at what they open', () => {
  test('a car: doors at its sides, the hatch behind, the bonnet ahead', () => {
    expect(sides('ks-13')).toMatchObject({
      hatch: 'rear',
      bonnet: 'front',
      'door-front-left': 'left',
      'door-rear-right': 'right',
    });
  });

  test('a box: compartments along it, doors across its end; a mast is opened by nobody', () => {
    expect(sides('shore-medic-7')).toMatchObject({
      'shutter-rear-right': 'right',
      'barn-door-left': 'rear',
      'door-side-left': 'left',
    });
    expect(sides('line-marking')).not.toHaveProperty('mast');
  });

  test('a part without a body stands nowhere', () => {
    expect(sideOfPart(vehicleOf(demoBuild('ks-13').vehicle), 'none')).toBeNull();
  });
});
