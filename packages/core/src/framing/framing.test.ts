import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  extents,
  makeBlock,
  makeLesson,
  movements,
  shotAngles,
  shotFramings,
  type Block,
  type Extent,
  type Filming,
  type Shot,
} from '../lesson/index.ts';
import { counter } from '../testing/arbitrary.ts';
import {
  angleOfView,
  bodyRoom,
  frameShot,
  lensFrom,
  lensPresets,
  project,
  SAFE_PART,
  showsAll,
  type BodyRoom,
} from './index.ts';

const filmingOf = (over: Partial<Filming> = {}): Filming => ({
  ...makeLesson('A lesson', counter()).filming,
  ...over,
});
const shot: Shot = {
  id: 'a',
  angle: 'front',
  framing: 'whole body',
  place: '',
  performers: 1,
  fresh: false,
  note: '',
};
const reps = (over: Partial<Block> = {}): Block =>
  ({ ...makeBlock('reps', counter()), ...over }) as Block;
const travelling = (rightCm: number): Block =>
  reps({
    floor: [
      {
        id: 'way',
        kind: 'travel',
        label: 'Side steps',
        rightCm,
        forwardCm: 0,
        widthCm: 30,
        depthCm: 30,
      },
    ],
  });

describe('angle of view', () => {
  // 2 atan(w / 2f) with 36 mm as the width, 16:9 (arithmetic from the published formula).
  it.each([
    [13, 108.3, 75.8],
    [24, 73.7, 45.7],
    [26, 69.4, 42.6],
    [50, 39.6, 22.9],
  ])('of a %i mm lens is %f° by %f°', (lensMm, horizontal, vertical) => {
    const { horizontalDeg, verticalDeg } = angleOfView(lensMm, 'landscape');
    expect(horizontalDeg).toBeCloseTo(horizontal, 1);
    expect(Math.abs(verticalDeg - vertical)).toBeLessThan(0.1);
    expect(angleOfView(lensMm, 'portrait')).toEqual({
      horizontalDeg: verticalDeg,
      verticalDeg: horizontalDeg,
    });
  });

  it('is found from a thing of known size, whatever lens filmed it', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 8, max: 200 }),
        fc.integer({ min: 50, max: 600 }),
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        (lensMm, distanceCm, part) => {
          const camera = {
            ...angleOfView(lensMm, 'landscape'),
            distanceCm,
            heightCm: 0,
            offsetCm: 0,
            tiltDeg: 0,
          };
          const wideCm = part * 2 * distanceCm * Math.tan((camera.horizontalDeg * Math.PI) / 360);
          const seen = project(camera, { rightCm: wideCm / 2, upCm: 0, nearCm: 0 });
          expect(lensFrom(wideCm, distanceCm, seen?.x ?? 0)).toBeCloseTo(lensMm, 6);
        },
      ),
    );
    expect(() => lensFrom(0, 200, 0.5)).toThrow('more than 0 cm');
    expect(() => lensFrom(100, 200, 1.2)).toThrow('long side');
  });
});

describe('where the camera goes', () => {
  it('is the distance that the arithmetic of the lens gives', () => {
    // A performer of 170 cm standing, in the middle 90 % of the height of a 26 mm picture: 85 /
    // (0.9 tan 21.3°) = 242 cm to the nearest part of the body.
    const { placing } = frameShot(reps(), shot, filmingOf());
    expect(placing?.camera.heightCm).toBe(85);
    expect(
      Math.abs((placing?.camera.distanceCm ?? 0) - (85 / (0.9 * (18 / (16 / 9) / 26)) + 0.2 * 170)),
    ).toBeLessThan(1.5);
    expect(placing?.camera.tiltDeg).toBeCloseTo(0, 6);
  });

  it('shows all of the move, and a step nearer would not', () => {
    const raw = fc.record({
      extent: fc.subarray([...extents]),
      movement: fc.constantFrom(...movements),
      angle: fc.constantFrom(...shotAngles),
      framing: fc.constantFrom(...shotFramings),
      performers: fc.integer({ min: 1, max: 4 }),
      lensMm: fc.constantFrom(...lensPresets.map(({ lensMm }) => lensMm)),
      orientation: fc.constantFrom('landscape', 'portrait' as const),
      safe: fc.constantFrom('whole', 'action', 'graphics' as const),
      performerCm: fc.integer({ min: 90, max: 200 }),
      cameraCm: fc.option(fc.integer({ min: 20, max: 180 })),
      rightCm: fc.integer({ min: -250, max: 250 }),
    });
    fc.assert(
      fc.property(raw, ({ extent, angle, framing, performers, rightCm, ...filming }) => {
        const block = { ...travelling(rightCm), extent };
        const angled = { ...shot, angle, framing, performers };
        const { room, placing } = frameShot(block, angled, filmingOf(filming));
        if (!placing) throw new Error('No distance was found.');
        expect(showsAll(placing.camera, room, filming.safe)).toBe(true);
        const nearest = placing.camera.distanceCm <= Math.ceil(room.nearCm) + 30;
        expect(
          nearest ||
            !showsAll(
              { ...placing.camera, distanceCm: placing.camera.distanceCm - 1.5 },
              room,
              filming.safe,
            ),
        ).toBe(true);
        // The tape: a body standing on it is seen to the edge of the safe area, one step outside is
        // not.
        const foot = (rightOf: number) =>
          Math.abs(project(placing.camera, { rightCm: rightOf, upCm: 0, nearCm: 0 })?.x ?? 9) /
          SAFE_PART[filming.safe];
        expect(foot(placing.tape.rightCm)).toBeLessThanOrEqual(1 + 1e-9);
        expect(foot(placing.tape.rightCm + 2)).toBeGreaterThan(1);
        expect(foot(-placing.tape.leftCm)).toBeLessThanOrEqual(1 + 1e-9);
      }),
      { numRuns: 150 },
    );
  });

  it('asks for more room for what reaches further', () => {
    const depth = (extent: Extent[], more: Partial<Shot> = {}) =>
      frameShot(reps({ extent }), { ...shot, ...more }, filmingOf()).placing?.depthCm ?? 0;
    expect(depth(['overhead'])).toBeGreaterThan(depth([]));
    expect(depth(['overhead', 'jump'])).toBeGreaterThan(depth(['overhead']));
    expect(depth([], { performers: 3 })).toBeGreaterThan(depth([]));
    expect(depth([], { framing: 'feet' })).toBeLessThan(depth([]));
    // Lying across the picture, a body is longer than it is high; seen along its length it is not.
    const lying: BodyRoom = bodyRoom(reps({ extent: ['lying'] }), shot, 170);
    expect(lying.leftCm + lying.rightCm).toBeGreaterThan(lying.topCm);
    expect(depth(['lying'], { angle: 'left side' })).toBeLessThan(depth(['lying']) + 200);
  });

  it('knows the rope goes overhead, and takes the teacher’s word against it', () => {
    const skipping = reps({
      exercise: { id: 'x', title: 'Skip', movement: 'skip-rope' },
    } as Partial<Block>);
    expect(bodyRoom(skipping, shot, 100).topCm).toBeCloseTo(150);
    expect(bodyRoom({ ...skipping, extent: [] }, shot, 100).topCm).toBeCloseTo(100);
  });
});

describe('a distance that is set', () => {
  const block = makeBlock('intervals', counter());
  const away = (awayCm: number) => frameShot(block, shot, filmingOf({ awayCm }));

  it('is kept, and the lens is the longest of the usual ones that shows it all from there', () => {
    fc.assert(
      fc.property(fc.integer({ min: 50, max: 1_500 }), (awayCm) => {
        const { placing, room } = away(awayCm);
        const isShown = (lensMm: number) => {
          const needed = frameShot(block, shot, filmingOf({ lensMm })).placing;
          return needed !== null && needed.camera.distanceCm <= awayCm;
        };
        const longest = [...lensPresets].reverse().find(({ lensMm }) => isShown(lensMm));
        expect(placing?.lensMm).toBe(longest?.lensMm);
        if (!placing) return;
        expect(placing.camera.distanceCm).toBe(awayCm);
        expect(showsAll(placing.camera, room, 'graphics')).toBe(true);
      }),
    );
  });

  it('that no lens can do says so, and what would: a distance that is free', () => {
    const { placing, remedies } = away(50);
    expect(placing).toBeNull();
    expect(remedies.map(({ kind }) => kind)).toContain('any-distance');
  });
});

describe('a room that is too short', () => {
  const room = { widthCm: 500, depthCm: 400, heightCm: 240 };

  it('says by how much, and every remedy fits', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -300, max: 300 }),
        fc.integer({ min: 150, max: 600 }),
        fc.subarray([...extents]),
        (rightCm, depthCm, extent) => {
          const filming = filmingOf({ room: { ...room, depthCm } });
          const { placing, missing, remedies } = frameShot(
            { ...travelling(rightCm), extent },
            shot,
            filming,
          );
          expect(missing.depthCm).toBe(Math.max(0, (placing?.depthCm ?? 0) - depthCm));
          if (missing.depthCm === 0) expect(remedies).toEqual([]);
          for (const remedy of remedies)
            expect(remedy.placing.depthCm).toBeLessThanOrEqual(depthCm);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('has someone standing with the arms down filmed upright, or with a wider lens', () => {
    const kinds = frameShot(
      makeBlock('talk', counter()),
      shot,
      filmingOf({ room: { ...room, depthCm: 240 } }),
    ).remedies.map(({ kind }) => kind);
    expect(kinds).toContain('turn-phone');
    expect(kinds).toContain('wider-lens');
  });

  it('has wide travel made smaller by no more than needed', () => {
    const wide = travelling(250);
    const found = frameShot(wide, shot, filmingOf({ room })).remedies.find(
      ({ kind }) => kind === 'smaller-travel',
    );
    if (found?.kind !== 'smaller-travel') throw new Error('No smaller travel was proposed.');
    expect(found.percent).toBeGreaterThan(20);
    expect(found.percent).toBeLessThan(100);
    const block = {
      ...wide,
      floor: wide.floor.map((mark) => ({
        ...mark,
        rightCm: Math.round((mark.rightCm * (found.percent + 2)) / 100),
      })),
    };
    expect(frameShot(block, shot, filmingOf({ room })).missing.depthCm).toBeGreaterThan(0);
  });
});
