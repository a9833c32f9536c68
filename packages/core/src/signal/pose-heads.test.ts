import fc from 'fast-check';
import { expect, it } from 'vitest';
import { readPose } from './pose-heads.ts';
import { joints } from './pose.ts';

const SIDE = 12;
const place = fc.record({ row: fc.nat(SIDE - 1), column: fc.nat(SIDE - 1) });
/** Of parts that a float has exactly. */
const part = fc.integer({ min: -32, max: 32 }).map((n) => n / 64);

it('a joint is where it scores, of the body whose centre scores most', () => {
  fc.assert(
    fc.property(
      place,
      fc.array(fc.record({ at: place, down: part, right: part }), {
        minLength: joints.length,
        maxLength: joints.length,
      }),
      (centre, seen) => {
        const plane = SIDE * SIDE;
        const at = ({ row, column }: { row: number; column: number }) => row * SIDE + column;
        const planes = (count: number) => new Float32Array(count * plane);
        const heads = {
          ...{ side: SIDE, centre: planes(1), fromCentre: planes(2 * joints.length) },
          ...{ score: planes(joints.length), offset: planes(2 * joints.length) },
        };
        heads.centre[at(centre)] = 1;
        seen.forEach((joint, j) => {
          const [down, right] = [2 * j * plane, (2 * j + 1) * plane];
          heads.fromCentre[down + at(centre)] = joint.at.row - centre.row;
          heads.fromCentre[right + at(centre)] = joint.at.column - centre.column;
          // Somebody else's joint, further away and seen as well.
          const other = { row: joint.at.row, column: (joint.at.column + SIDE / 2) % SIDE };
          heads.score[j * plane + at(other)] = 0.75;
          heads.score[j * plane + at(joint.at)] = 0.75;
          heads.offset[down + at(joint.at)] = joint.down;
          heads.offset[right + at(joint.at)] = joint.right;
        });
        const said = readPose(heads);
        seen.forEach((joint, j) => {
          expect(said[3 * j]).toBeCloseTo((joint.at.row + joint.down) / SIDE, 5);
          expect(said[3 * j + 1]).toBeCloseTo((joint.at.column + joint.right) / SIDE, 5);
          expect(said[3 * j + 2]).toBe(0.75);
        });
      },
    ),
  );
});
