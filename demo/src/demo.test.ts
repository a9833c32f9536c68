import { existsSync, statSync } from 'node:fs';
import path from 'node:path';
import { blocksOf, movements, readLesson } from '@zest/core/lesson';
import { scheduleLesson } from '@zest/core/schedule';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoClips, demoLesson } from './lesson.ts';
import { PERIOD_S, poseAt, speechAt, VOICE_LOOP_S, voiceSamples } from './performer/index.ts';

describe('the demo lesson', () => {
  const lesson = demoLesson(new Map(demoClips.map((clip) => [clip.blockId, `take-${clip.blockId}`])));

  it('is a lesson of three sections with intervals and repetitions', () => {
    expect(readLesson(JSON.parse(JSON.stringify(lesson)))).toEqual(lesson);
    expect(lesson.sections).toHaveLength(3);
    expect(new Set(blocksOf(lesson).map((block) => block.kind))).toEqual(new Set(['talk', 'intervals', 'reps']));
  });

  it('has clips under 2 MB that cover their blocks', () => {
    const { blocks } = scheduleLesson(lesson);
    for (const clip of demoClips) {
      const file = path.join(import.meta.dirname, '..', 'clips', clip.file);
      expect(existsSync(file)).toBe(true);
      expect(statSync(file).size).toBeLessThan(2_000_000);
      const planned = blocks.find(({ block }) => block.id === clip.blockId);
      const bodyMs = planned?.spans.findLast((span) => span.kind !== 'pause-sign')?.endMs ?? Infinity;
      expect(clip.lengthMs - clip.headMs).toBeGreaterThanOrEqual(bodyMs);
    }
  });
});

describe('the performer', () => {
  it('moves smoothly, in the frame, the same in every repetition', () => {
    fc.assert(
      fc.property(fc.constantFrom(...movements), fc.double({ min: 0, max: 60, noNaN: true }), (movement, seconds) => {
        const pose = poseAt(movement, seconds);
        const points = [pose.pelvis, ...Object.values(pose.hands), ...Object.values(pose.feet)];
        for (const { x, y } of points) expect(Math.abs(x) < 0.8 && y >= 0 && y < 1.35).toBe(true);
        const soon = poseAt(movement, seconds + 0.004);
        expect(Math.hypot(soon.pelvis.x - pose.pelvis.x, soon.pelvis.y - pose.pelvis.y)).toBeLessThan(0.02);
        if (movement !== 'other' && movement !== 'one-leg-balance') {
          expect(poseAt(movement, seconds + PERIOD_S[movement]).hands.left.y).toBeCloseTo(pose.hands.left.y, 6);
        }
      }),
    );
  });

  it('speaks with pauses, the same each time, without clipping', () => {
    const rate = 8_000;
    const voice = voiceSamples(rate, 0, rate * 4);
    expect(voiceSamples(rate, 0, rate * 4)).toEqual(voice);
    const again = voiceSamples(rate, rate * VOICE_LOOP_S, 1_000);
    expect(Math.max(...again.map((value, i) => Math.abs(value - (voice[i] ?? 0))))).toBeLessThan(1e-3);
    const loud = (from: number, to: number) => Math.sqrt(voice.subarray(from * rate, to * rate).reduce((sum, v) => sum + v * v, 0) / ((to - from) * rate));
    expect(loud(0, 3)).toBeGreaterThan(0.02);
    expect(loud(3.2, 3.9)).toBe(0);
    expect(speechAt(3.5)).toBe(0);
    expect(voice.every((value) => Math.abs(value) <= 1)).toBe(true);
  });
});
