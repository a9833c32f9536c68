import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeBlock, performerFacings } from '../lesson/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { floorPlace, floorUse } from './index.ts';

describe('a mark moved on the floor plan', () => {
  it('lies where it is put, whichever way the performer faces', () => {
    const cm = fc.integer({ min: -500, max: 500 });
    fc.assert(
      fc.property(fc.constantFrom(...performerFacings), cm, cm, (performer, right, near) => {
        const block = makeBlock('game', counter());
        block.facing.performer = performer;
        block.floor = [
          {
            ...{ id: 'm', kind: 'target', label: '', widthCm: 40, depthCm: 60 },
            ...floorPlace(performer, right, near),
          },
        ];
        const [mark] = floorUse(block)?.marks ?? [];
        expect([mark?.screenRightCm, mark?.nearCm].map((n) => n! + 0)).toEqual([right, near]);
      }),
    );
  });
});
