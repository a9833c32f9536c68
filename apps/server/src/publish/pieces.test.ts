import { assemble, type Assembly } from '@zest/core/assembly';
import { makeCue, type IntervalsBlock } from '@zest/core/lesson';
import { firstFrameFrom } from '@zest/core/time';
import { describe, expect, it } from 'vitest';
import { lessonOf } from '../testing/server.ts';
import { slotChanges } from './paint.ts';
import { missingOf, piecesOf, STANDARD } from './pieces.ts';

const work: Partial<IntervalsBlock> = {
  kind: 'intervals',
  title: 'Skip',
  workMs: 45_000,
  restMs: 15_000,
  rounds: 2,
  leadInMs: 5_000,
  footage: { takeId: 'take', startsAtMs: 1_000 },
};
const media = new Map([['take', { sha: 'a'.repeat(64), hasSound: true }]]);
const takes = (frames: number) => new Map([['take', { id: 'take', frames, marked: null }]]);
const cut = (blocks: Partial<IntervalsBlock>[], frames = 9_000): Assembly =>
  assemble(lessonOf(blocks), takes(frames));

describe('pieces of an export', () => {
  it('tile the video, none longer than 20 s, each from its place in the take', () => {
    const assembly = cut([work, { kind: 'intervals', rounds: 1 }]);
    const pieces = piecesOf(assembly, media);
    let at = 0;
    for (const piece of pieces) {
      expect(piece.startFrame).toBe(at);
      expect(piece.frames).toBeLessThanOrEqual(600);
      if (piece.picture.kind === 'take') expect(piece.picture.shot.inFrame).toBe(30 + at);
      at += piece.frames;
    }
    expect(at).toBe(firstFrameFrom(assembly.durationMs));
  });

  it(
    'have the hash of what is in them: the same again, another after a change, the ' +
      'take, or the side of the picture',
    () => {
      const hashes = (assembly: Assembly, files = media) =>
        piecesOf(assembly, files).flatMap(({ parts }) => parts.map(({ hash }) => hash));
      const action = makeCue('Elbows close', () => 'a');
      const first = hashes(cut([{ ...work, cues: [action] }]));
      expect(hashes(cut([{ ...work, cues: [action] }]))).toEqual(first);
      // A cue for the last five seconds of each of two works changes those, to two seconds.
      const later = hashes(
        cut([{ ...work, cues: [action, makeCue('Soft knees', () => 'c', 'finish')] }]),
      );
      const changed = later.filter((hash) => !first.includes(hash));
      expect(changed.length).toBeGreaterThan(0);
      expect(changed.length).toBeLessThanOrEqual(2 * 4);
      expect(
        hashes(cut([work]), new Map([['take', { sha: 'b'.repeat(64), hasSound: true }]])),
      ).not.toContain(first[0]);
      const lesson = lessonOf([work]);
      const mirrored = assemble(
        { ...lesson, settings: { ...lesson.settings, sides: 'mirrored' } },
        takes(9_000),
      );
      expect(hashes(mirrored)).not.toContain(first[0]);
    },
  );

  it('are made of the parts that are not kept yet, in one go where they follow each other', () => {
    const assembly = cut([work]);
    const pieces = piecesOf(assembly, media);
    const parts = pieces.flatMap((piece) => piece.parts);
    const changed = new Set([3, 4, 9].map((i) => parts[i]?.hash));
    const missing = missingOf(pieces, assembly, media, STANDARD, ({ hash }) => !changed.has(hash));
    expect(missing.map(({ startFrame, frames }) => [startFrame, frames])).toEqual([
      [180, 120],
      [540, 60],
    ]);
    expect(missing.flatMap((piece) => piece.parts)).toEqual([parts[3], parts[4], parts[9]]);
    expect(missingOf(pieces, assembly, media, STANDARD, () => false)).toEqual(pieces);
    expect(missingOf(pieces, assembly, media, STANDARD, () => true)).toEqual([]);
  });

  it('hold the last frame of a take that has run out, and refuse a take without its file', () => {
    const short = piecesOf(cut([work], 700), media);
    expect(short.at(-1)?.picture).toMatchObject({ shot: { inFrame: 699, available: 1 } });
    expect(() => piecesOf(cut([work]), new Map())).toThrow('missing');
  });

  it('list a slot only where something is seen, once for each change', () => {
    const assembly = cut([work]);
    const clock = slotChanges(assembly, 'clock', 150, 450);
    // Two steps of the ring a second, the first at once.
    expect(clock).toHaveLength(20);
    expect(clock[0]?.frame).toBe(0);
    expect(slotChanges(assembly, 'counter', 0, 600)).toEqual([]);
  });
});
