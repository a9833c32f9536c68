import {
  blocksOf,
  exerciseTitles,
  otherSide,
  withExerciseTitles,
  type Block,
  type Lesson,
  type Side,
} from '../lesson/index.ts';
import type { Measure, Score } from './entry.ts';

/** A number students are asked for. */
export interface ScorePrompt extends Pick<
  Score,
  'blockId' | 'key' | 'title' | 'measure' | 'better' | 'seconds'
> {
  /** Sides asked for one after the other; empty when sides do not matter. */
  sides: readonly Side[];
  tries: number;
  /** Asked when its block has been done; else only offered. */
  isAsked: boolean;
  /** The number to reach; null when there is none. */
  target: number | null;
  /** What there is to hit, and what it gives. */
  targets: readonly { name: string; points: number }[];
}

/** Comparable from week to week: by skill where there is one, else by the exercise's own name. */
function keyOf(skill: string, title: string, measure: Measure): string {
  return [skill, title, measure]
    .map((text) => text.trim().toLowerCase().replace(/\s+/g, ' '))
    .join(' | ');
}

/** The sides asked for one after the other; one of null where sides do not matter. */
export const sidesOf = ({ sides }: Pick<ScorePrompt, 'sides'>): readonly (Side | null)[] =>
  sides.length > 0 ? sides : [null];

/** A number as an answer to what was asked. */
export function scoreOf(
  { blockId, key, title, measure, better, seconds }: ScorePrompt,
  score: Pick<Score, 'value' | 'side' | 'level'>,
): Score {
  return { kind: 'score', blockId, key, title, measure, better, ...score, seconds };
}

const KEY_LANGUAGE = 'en';
const BOTH: readonly Side[] = ['left', 'right'];

function promptsOf(untitled: Block, language: string): ScorePrompt[] {
  const block = withExerciseTitles(untitled, language);
  // A number stays the same one in whatever language its exercise without a title is called.
  const keyTitles = exerciseTitles(untitled, KEY_LANGUAGE);
  const titles = exerciseTitles(untitled, language);
  const base = {
    blockId: block.id,
    sides: [] as readonly Side[],
    tries: 1,
    isAsked: false,
    target: null,
    targets: [],
  };
  const named = (title: string, measure: Measure) => ({
    key: keyOf(block.skill, keyTitles[titles.indexOf(title)] ?? title, measure),
    title,
    measure,
  });
  switch (block.kind) {
    case 'game': {
      const untilDone = block.goal === 'target';
      const title = block.exercise.title;
      return [
        {
          ...base,
          ...named(title, block.scoring),
          better: block.scoring === 'time' && untilDone ? 'less' : 'more',
          seconds: untilDone ? null : block.playMs / 1000,
          tries: block.tries,
          isAsked: true,
          target: untilDone ? block.target : null,
          targets: block.targets.map(({ name, points }) => ({ name, points })),
        },
      ];
    }
    case 'called': {
      const { score, title } = block;
      if (!score) return [];
      // Points won, or lives left: either way more is better.
      const measure = score.kind === 'points' ? 'points' : 'count';
      return [
        {
          ...base,
          ...named(title, measure),
          ...{ better: 'more', seconds: null, isAsked: true },
          targets: score.kind === 'points' ? [{ name: title, points: score.each }] : [],
        },
      ];
    }
    case 'routine': {
      const { combination, title, wholeTimes } = block;
      if (combination?.scoreMs === undefined) return [];
      return [
        {
          ...base,
          ...named(title, 'count'),
          ...{ better: 'more', seconds: null, isAsked: true },
          sides:
            combination.sides === 'each'
              ? [combination.startSide, otherSide(combination.startSide)]
              : [],
          target: Math.max(1, wholeTimes),
        },
      ];
    }
    case 'laps':
      return [
        {
          ...base,
          ...named(block.exercise.title, 'time'),
          better: 'less',
          seconds: null,
          isAsked: true,
          target: block.laps,
        },
      ];
    case 'intervals': {
      // The same exercise for the same time is one number; a ladder asks for each of its times.
      const works = [...new Set([block.workMs, ...block.ladder.map(({ workMs }) => workMs)])];
      return block.exercises.flatMap(({ title, sides }) =>
        works.map((workMs): ScorePrompt => ({
          ...base,
          ...named(title, 'count'),
          better: 'more',
          seconds: workMs / 1000,
          tries: block.rounds * block.sets,
          sides: sides === 'rounds' || sides === 'halves' ? BOTH : sides === 'both' ? [] : [sides],
        })),
      );
    }
    case 'hold':
      return [
        {
          ...base,
          ...named(block.exercise.title, 'time'),
          better: 'more',
          seconds: null,
          sides: block.sides === 'both' ? [] : BOTH,
          tries: block.holds,
        },
      ];
    default:
      return [];
  }
}

/** Every number a lesson can bring home, in the order of its blocks. */
export function scorePrompts(lesson: Lesson): ScorePrompt[] {
  return blocksOf(lesson).flatMap((block) => promptsOf(block, lesson.settings.language));
}
