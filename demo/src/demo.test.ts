import { existsSync, statSync } from 'node:fs';
import path from 'node:path';
import { frameShot, project, shotsOf } from '@zest/core/framing';
import {
  blocksOf,
  entryUses,
  makeBlock,
  makeLesson,
  movements,
  readLesson,
  seriesSchema,
  type Block,
  type Shot,
} from '@zest/core/lesson';
import { termOf } from '@zest/core/results';
import { layOutWeeks, scheduleLesson, timeBlock } from '@zest/core/schedule';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoClips, demoLesson } from './lesson.ts';
import { demoPlan } from './plan.ts';
import {
  doneReps,
  performAt,
  PERIOD_S,
  pinholeView,
  plainHabits,
  poseAt,
  speechAt,
  VOICE_LOOP_S,
  voiceSamples,
  type Habits,
} from '@zest/performer';
import { demoClasses, demoEntries } from './classes.ts';
import { demoSeries, demoSeriesAt } from './series.ts';
import { demoWeeks } from './weeks.ts';

describe('the demo lesson', () => {
  const lesson = demoLesson(
    new Map(demoClips.map((clip) => [clip.blockId, `take-${clip.blockId}`])),
  );

  it('is a lesson of three sections with intervals and repetitions', () => {
    expect(readLesson(JSON.parse(JSON.stringify(lesson)))).toEqual(lesson);
    expect(lesson.sections).toHaveLength(3);
    expect(new Set(blocksOf(lesson).map((block) => block.kind))).toEqual(
      new Set(['talk', 'intervals', 'reps']),
    );
  });

  it('has clips under 2 MB that cover their blocks', () => {
    const { blocks } = scheduleLesson(lesson);
    for (const clip of demoClips) {
      const file = path.join(import.meta.dirname, '..', 'clips', clip.file);
      expect(existsSync(file)).toBe(true);
      expect(statSync(file).size).toBeLessThan(2_000_000);
      const planned = blocks.find(({ block }) => block.id === clip.blockId);
      const bodyMs =
        planned?.spans.findLast((span) => span.kind !== 'pause-sign')?.endMs ?? Infinity;
      expect(clip.lengthMs - clip.headMs).toBeGreaterThanOrEqual(bodyMs);
    }
  });
});

describe('the planned lesson, the series and the cues', () => {
  it('are in order, and name each other', () => {
    const plan = demoPlan();
    expect(readLesson(JSON.parse(JSON.stringify(plan)))).toEqual(plan);
    expect(seriesSchema.parse(demoSeries)).toEqual(demoSeries);
    expect(layOutWeeks(demoSeries).map(({ dates }) => dates[0])).toEqual([
      '2026-11-09',
      '2026-11-16',
      '2026-11-23',
      '2026-11-30',
      '2026-12-14',
      '2026-12-21',
      '2026-12-28',
    ]);
    const skills = new Set(demoSeries.skills.map(({ name }) => name));
    for (const { skill } of blocksOf(plan)) expect(skill === '' || skills.has(skill)).toBe(true);
    expect(entryUses(plan).get('dc-snap')).toBe(1);
  });

  it('fill six weeks of the seven, each a lesson of its week', () => {
    let ids = 0;
    const weeks = demoWeeks(() => `w-${(ids += 1)}`);
    const all = [demoLesson(new Map()), demoPlan(), ...weeks];
    expect(all.map(({ series }) => series.week).sort()).toEqual([1, 2, 3, 4, 5, 6]);
    expect(new Set(all.map(({ title }) => title)).size).toBe(6);
    for (const lesson of weeks) {
      expect(readLesson(JSON.parse(JSON.stringify(lesson)))).toEqual(lesson);
      expect(lesson.series.name).toBe(demoSeries.name);
    }
  });
});

describe('the performer', () => {
  it('moves smoothly, in the frame, the same in every repetition', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...movements),
        fc.double({ min: 0, max: 60, noNaN: true }),
        (movement, seconds) => {
          const pose = poseAt(movement, seconds);
          const points = [pose.pelvis, ...Object.values(pose.hands), ...Object.values(pose.feet)];
          for (const { x, y } of points) expect(Math.abs(x) < 0.8 && y >= 0 && y < 1.35).toBe(true);
          const soon = poseAt(movement, seconds + 0.004);
          expect(
            Math.hypot(soon.pelvis.x - pose.pelvis.x, soon.pelvis.y - pose.pelvis.y),
          ).toBeLessThan(0.02);
          if (movement !== 'other' && movement !== 'one-leg-balance') {
            expect(poseAt(movement, seconds + PERIOD_S[movement]).hands.left.y).toBeCloseTo(
              pose.hands.left.y,
              6,
            );
          }
        },
      ),
    );
  });

  it('does repetitions as its habits say, and the truth of them is known', () => {
    const reps: Block = {
      ...makeBlock('reps', () => 'r'),
      reps: 6,
      sides: 'both',
      leadInMs: 2_000,
      exercise: { id: 'e', title: 'Squat', movement: 'squat' },
    } as Block;
    const { spans } = timeBlock(
      reps,
      makeLesson('A', () => 'l'),
    );
    fc.assert(
      fc.property(
        fc.nat(1_000),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.subarray([0, 1, 2, 3, 4, 5]),
        fc.option(fc.integer({ min: 0, max: 14_000 })),
        (seed, unevenness, leftOut, stopsAtMs) => {
          const habits: Habits = { ...plainHabits, seed, unevenness, leftOut, stopsAtMs };
          const done = doneReps(spans, habits);
          expect(doneReps(spans, habits)).toEqual(done);
          const wanted = [0, 1, 2, 3, 4, 5].filter(
            (i) =>
              !leftOut.includes(i) && (stopsAtMs === null || 2_000 + (i + 1) * 2_000 <= stopsAtMs),
          );
          expect(done.map(({ index }) => index)).toEqual(wanted);
          // Half-way through each the pelvis is down by as much as the truth says; where one is
          // left out it is not.
          for (const index of [0, 1, 2, 3, 4, 5]) {
            const rep = done.find((one) => one.index === index);
            const middle = rep ? (rep.startMs + rep.endMs) / 2 : 2_000 + index * 2_000 + 1_000;
            if (stopsAtMs !== null && middle >= stopsAtMs) continue;
            const { y } = performAt(spans, habits, middle).pelvis;
            if (rep) expect(y).toBeCloseTo(0.52 - 0.21 * rep.size, 6);
            else if (stopsAtMs === null) expect(y).toBeCloseTo(0.52, 6);
          }
        },
      ),
    );
    // During a work of 10 s, squats of 2.5 s are done four times over.
    const work = {
      ...makeBlock('intervals', () => 'w'),
      rounds: 1,
      workMs: 10_000,
      leadInMs: 1_000,
      exercises: [{ id: 'e', title: 'Squat', movement: 'squat', sides: 'both' }],
    } as Block;
    const bouts = timeBlock(
      work,
      makeLesson('A', () => 'l'),
    ).spans;
    expect(doneReps(bouts, plainHabits).map(({ startMs, endMs }) => [startMs, endMs])).toEqual([
      [1_000, 3_500],
      [3_500, 6_000],
      [6_000, 8_500],
      [8_500, 11_000],
    ]);
    expect(doneReps(bouts, { ...plainHabits, leftOut: [2] }).map(({ index }) => index)).toEqual([
      0, 1, 3,
    ]);
    expect(performAt(bouts, { ...plainHabits, leftOut: [2] }, 7_250).pelvis.y).toBeCloseTo(0.52, 6);
    const away = performAt(spans, { ...plainHabits, away: { fromMs: 0, toMs: 9_000 } }, 5_000);
    expect(Math.min(away.hands.left.x, away.hands.right.x, away.pelvis.x)).toBeGreaterThan(1.5);
    expect(performAt(spans, { ...plainHabits, body: 'seated' }, 3_000)).toMatchObject({
      seated: true,
      feet: { left: { y: 0 } },
    });
    expect(
      Math.abs(performAt(spans, { ...plainHabits, view: 'side' }, 3_000).hands.left.x),
    ).toBeLessThan(0.15);
  });

  it('is in the safe part of the picture where the framing puts the camera, and not from half as far', () => {
    // The drawing's own pinhole against the core's projection: made apart from each other.
    const [width, height] = [640, 360];
    const raw = fc.record({
      movement: fc.constantFrom(...movements),
      lensMm: fc.constantFrom(13, 26, 52),
      performerCm: fc.integer({ min: 110, max: 195 }),
      cameraCm: fc.option(fc.integer({ min: 40, max: 160 })),
    });
    fc.assert(
      fc.property(raw, ({ movement, ...over }) => {
        const lesson = makeLesson('A', () => 'l');
        const block = {
          ...makeBlock('reps', () => 'b'),
          exercise: { id: 'e', title: 'E', movement },
        } as Block;
        const [shot] = shotsOf(block);
        const { placing } = frameShot(block, shot as Shot, {
          ...lesson.filming,
          ...over,
          safe: 'graphics',
        });
        if (!placing) throw new Error('No place was found.');
        const { spans } = timeBlock(block, lesson);
        const reach = (distanceCm: number) => {
          const view = pinholeView(
            { ...placing.camera, distanceCm },
            over.performerCm,
            width,
            height,
          );
          let most = 0;
          for (const { startMs, endMs } of spans) {
            for (let part = 0; part < 1; part += 0.1) {
              const pose = performAt(spans, plainHabits, startMs + part * (endMs - startMs));
              const head = {
                x: pose.pelvis.x + Math.sin(pose.lean) * 0.4,
                y: pose.pelvis.y + 0.48,
              };
              for (const { x, y } of [
                head,
                ...Object.values(pose.hands),
                ...Object.values(pose.feet),
              ]) {
                most = Math.max(
                  most,
                  Math.abs(view.middleX + x * view.unit - width / 2) / (width / 2),
                  Math.abs(view.floorY - y * view.unit - height / 2) / (height / 2),
                );
              }
            }
          }
          return most;
        };
        // Soles and crown lie where the core's projection has them, tilted or not.
        const pinhole = pinholeView(placing.camera, over.performerCm, width, height);
        const row = (upCm: number) =>
          (height / 2) * (1 - (project(placing.camera, { rightCm: 0, upCm, nearCm: 0 })?.y ?? 9));
        expect([pinhole.floorY, pinhole.floorY - pinhole.unit].map((y) => y.toFixed(6))).toEqual(
          [row(0), row(over.performerCm)].map((y) => y.toFixed(6)),
        );
        // Between them the drawing is not foreshortened, so the move is followed before a level
        // camera.
        if (over.cameraCm !== null) return;
        expect(reach(placing.camera.distanceCm)).toBeLessThanOrEqual(0.905);
        expect(reach(placing.camera.distanceCm / 2)).toBeGreaterThan(0.9);
      }),
      { numRuns: 60 },
    );
  });

  it('speaks with pauses, the same each time, without clipping', () => {
    const rate = 8_000;
    const voice = voiceSamples(rate, 0, rate * 4);
    expect(voiceSamples(rate, 0, rate * 4)).toEqual(voice);
    const again = voiceSamples(rate, rate * VOICE_LOOP_S, 1_000);
    expect(Math.max(...again.map((value, i) => Math.abs(value - (voice[i] ?? 0))))).toBeLessThan(
      1e-3,
    );
    const loud = (from: number, to: number) =>
      Math.sqrt(
        voice.subarray(from * rate, to * rate).reduce((sum, v) => sum + v * v, 0) /
          ((to - from) * rate),
      );
    expect(loud(0, 3)).toBeGreaterThan(0.02);
    expect(loud(3.2, 3.9)).toBe(0);
    expect(speechAt(3.5)).toBe(0);
    expect(voice.every((value) => Math.abs(value) <= 1)).toBe(true);
  });
});

describe('the demo’s term', () => {
  const now = Date.UTC(2030, 4, 15, 12);
  const series = demoSeriesAt(now);

  it('lies about today: its sixth week is this one, its break moved with it', () => {
    expect(seriesSchema.parse(series)).toEqual(series);
    const weeks = layOutWeeks(series);
    const days = (date = '') => (now - Date.parse(date)) / 86_400_000;
    expect(days(weeks[5]?.dates[0])).toBeGreaterThanOrEqual(0);
    expect(days(weeks[5]?.dates[0])).toBeLessThan(7);
    expect(weeks.map(({ week }) => week)).toEqual([1, 2, 3, 4, 5, 6, 7]);
  });

  it('brings back results of two classes over its weeks, none from the future', () => {
    const lessons = [demoPlan(), ...demoWeeks(() => 'id')];
    const weeks = layOutWeeks(series).flatMap(({ week, dates: [first] }) => {
      const lesson = lessons.find((one) => one.series?.week === week);
      return lesson && first ? [{ id: `l${week}`, lesson, startsAt: Date.parse(first) }] : [];
    });
    expect(demoClasses.length).toBe(2);
    for (const demoClass of demoClasses) {
      const entries = demoEntries(demoClass, weeks, now);
      expect(Math.max(...entries.map(({ at }) => at))).toBeLessThanOrEqual(now);
      expect(new Set(entries.map(({ lessonId }) => lessonId)).size).toBeGreaterThanOrEqual(5);
      const ids = demoClass.nicknames.map(String);
      const term = termOf(
        ids,
        entries.map(({ student, ...entry }, i) => ({
          ...{ ...entry, id: String(i), studentId: ids[student] ?? '' },
        })),
        { now },
      );
      expect(term.grew.find(({ title }) => title === 'Rope skipping')?.change).toBeGreaterThan(0);
      expect(term.hard.length).toBeGreaterThan(0);
      for (const came of ['did', 'looked', 'away'] as const)
        expect(term.came.some(({ byWeek }) => byWeek.includes(came))).toBe(true);
    }
  });
});
