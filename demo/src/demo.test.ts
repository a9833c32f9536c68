import { existsSync, statSync } from 'node:fs';
import path from 'node:path';
import { blocksOf, entryUses, movements, readLesson, seriesSchema } from '@zest/core/lesson';
import { layOutWeeks, scheduleLesson } from '@zest/core/schedule';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoClips, demoLesson } from './lesson.ts';
import { demoPlan } from './plan.ts';
import { PERIOD_S, poseAt, speechAt, VOICE_LOOP_S, voiceSamples } from './performer/index.ts';
import { demoSeries } from './series.ts';

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

describe('the planned lesson, the series and the cues', () => {
  it('are in order, and name each other', () => {
    const plan = demoPlan();
    expect(readLesson(JSON.parse(JSON.stringify(plan)))).toEqual(plan);
    expect(seriesSchema.parse(demoSeries)).toEqual(demoSeries);
    expect(layOutWeeks(demoSeries).map(({ dates }) => dates[0])).toEqual(['2026-11-09', '2026-11-16', '2026-11-23', '2026-11-30', '2026-12-14', '2026-12-21', '2026-12-28']);
    const skills = new Set(demoSeries.skills.map(({ name }) => name));
    for (const { skill } of blocksOf(plan)) expect(skill === '' || skills.has(skill)).toBe(true);
    expect(entryUses(plan).get('dc-snap')).toBe(1);
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
