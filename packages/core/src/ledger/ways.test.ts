import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  filmedWay,
  makeBlock,
  makeLesson,
  makeSection,
  marksOfWay,
  waysOf,
  wayTexts,
  withWay,
  type Block,
  type Way,
} from '../lesson/index.ts';
import { runSheet, scheduleLesson } from '../schedule/index.ts';
import { floorUse, spaceLedger } from './index.ts';

let ids = 0;
const makeId = () => `w-${(ids += 1)}`;
const way = (players: number, rest: Partial<Way> = {}): Way => ({
  ...{ id: `way-${players}`, players, rules: `Rules for ${players}` },
  ...rest,
});
const game = (change: Partial<Block> = {}): Block =>
  ({
    ...makeBlock('game', makeId),
    ...{ leadInMs: 0, explainMs: 1_000, playMs: 60_000, tries: 1, scoreMs: 0 },
    ...change,
  }) as Block;
const lessonOf = (block: Block, age = { ageFrom: 8, ageTo: 10 }) => ({
  ...makeLesson('Game', makeId),
  audience: age,
  sections: [{ ...makeSection('Play', makeId), blocks: [block] }],
});

describe('rules for so many players', () => {
  it('are those of the class’s age, the first of each number', () => {
    const ways = [
      way(3),
      way(2, { id: 'young', ages: { from: 5, to: 7 } }),
      way(2, { id: 'old', ages: { from: 8, to: 12 } }),
      way(2, { id: 'all' }),
      way(1),
    ];
    const block = game({ ways });
    expect(waysOf(block, lessonOf(block)).map(({ id }) => id)).toEqual(['way-1', 'old', 'way-3']);
    const small = lessonOf(block, { ageFrom: 5, ageTo: 6 });
    expect(waysOf(block, small).map(({ id }) => id)).toEqual(['way-1', 'young', 'way-3']);
  });

  it('hold for as many as are filmed: a partner makes two, five play as four and more', () => {
    const ways = [way(1), way(2), way(4)];
    const filmed = (kind: 'alone' | 'partner' | 'group', players: number) => {
      const block = game({ ways, company: { kind, players, hands: '' } });
      return filmedWay(block, lessonOf(block))?.players;
    };
    expect([filmed('alone', 1), filmed('partner', 1), filmed('group', 5)]).toEqual([1, 2, 4]);
    expect(filmed('group', 3)).toBeUndefined();
  });

  it('are told in words, with places, field and distance', () => {
    const block = game({
      ways: [
        way(1, { rules: 'Throw at the bottle.', distanceCm: 250 }),
        way(2, {
          ...{ rules: 'Pass ten times.', rotate: { by: 'event', after: 'miss' }, distanceCm: 400 },
          field: { widthCm: 300, depthCm: 600 },
        }),
        way(4, { rules: 'Two against two.', rotate: { by: 'time', everyMs: 30_000 } }),
      ],
    });
    expect(wayTexts(block, lessonOf(block))).toEqual([
      'Alone: Throw at the bottle. (2.5 m from the target)',
      '2 players: Pass ten times. (change places after each miss, field 3 m × 6 m, 4 m apart)',
      '4 or more players: Two against two. (change places every 30 s)',
    ]);
    const german = {
      ...lessonOf(block),
      settings: { ...lessonOf(block).settings, language: 'de' },
    };
    expect(wayTexts(block, german)[1]).toBe(
      '2 Spieler: Pass ten times. (Plätze tauschen nach jedem Fehler, Feld 3 m × 6 m, 4 m Abstand)',
    );
  });

  it('are called by the clock while one plays, never at its end', () => {
    const ways = [way(2, { rotate: { by: 'time', everyMs: 20_000 } })];
    const block = game({ ways, company: { kind: 'partner', players: 2, hands: '' } });
    const lines = runSheet(scheduleLesson(lessonOf(block)), 'en');
    // 1 s explained, then 60 s of play: called after 20 and 40 s.
    expect(
      lines.filter(({ text }) => text === 'Change places').map(({ videoMs }) => videoMs),
    ).toEqual([21_000, 41_000]);
  });
});

describe('the floor of a number of players', () => {
  it('has everybody as far from the next as is said', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 4 }), fc.integer({ min: 50, max: 2_000 }), (n, cm) => {
        const others = marksOfWay(way(n, { distanceCm: cm }));
        expect(others).toHaveLength(n - 1);
        const all = [{ rightCm: 0, forwardCm: 0 }, ...others];
        const apart = all.map((a) =>
          all
            .filter((b) => b !== a)
            .map((b) => Math.hypot(a.rightCm - b.rightCm, a.forwardCm - b.forwardCm))
            .sort((x, y) => x - y),
        );
        // Everybody has a neighbour at that distance; corners of a square are further.
        for (const [nearest] of apart) expect(Math.abs((nearest ?? 0) - cm)).toBeLessThan(1);
      }),
    );
  });

  it('is as large as its field, in the middle of the players', () => {
    const block = game({
      ...{ company: { kind: 'partner', players: 2, hands: '' } },
      ways: [way(2, { field: { widthCm: 300, depthCm: 600 }, distanceCm: 400 })],
    });
    const lesson = lessonOf(block);
    // Players at 0 and 4 m, the field's middle at 2 m: from 1 m behind to 5 m ahead.
    const use = floorUse(withWay(block, lesson));
    expect(use?.size).toEqual({ widthCm: 300, depthCm: 600, heightCm: 220 });
    expect([use?.reach.farCm, use?.reach.nearCm]).toEqual([100, 500]);
    expect(spaceLedger(lesson).needs.map(({ cm }) => cm)).toEqual([300, 600, 220]);
  });

  it('asks for nothing where nothing is said of it', () => {
    const block = game({ ways: [way(1)] });
    expect(floorUse(withWay(block, lessonOf(block)))).toBeNull();
  });
});
