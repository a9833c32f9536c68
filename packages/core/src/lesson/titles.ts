import type { Block } from './blocks.ts';
import { exercisesOf, cuesOfExercise } from './exercises.ts';
import type { Exercise } from './parts.ts';
import { lessonWord } from '../words/index.ts';

const nameOf = (
  block: Block,
  { title }: Exercise,
  at: number,
  of: number,
  language: string,
): string =>
  title.trim() ||
  (of === 1 && block.title.trim() !== ''
    ? block.title
    : 'moves' in block
      ? lessonWord(language, 'title.move', { n: at + 1 })
      : lessonWord(language, 'title.exercise', { n: at + 1 }));

/**
 * What a block's exercises or moves are called: by their own titles; without one, as the block
 * where it has but one, else by number, in the lesson's language.
 */
export function exerciseTitles(block: Block, language: string): string[] {
  const all = exercisesOf(block);
  return all.map((exercise, i) => nameOf(block, exercise, i, all.length, language));
}

/** The block with those titles in place; itself where every exercise has one of its own. */
export function withExerciseTitles<B extends Block>(block: B, language: string): B {
  const all = exercisesOf(block);
  if (all.every(({ title }) => title.trim() !== '')) return block;
  const titles = exerciseTitles(block, language);
  const named = <E extends Exercise>(exercise: E, i: number): E => ({
    ...exercise,
    title: titles[i] ?? exercise.title,
  });
  if ('exercises' in block) return { ...block, exercises: block.exercises.map(named) };
  if ('base' in block && block.base) return { ...block, base: named(block.base, 0) };
  if ('moves' in block) return { ...block, moves: (block.moves as Exercise[]).map(named) };
  return 'exercise' in block ? { ...block, exercise: named(block.exercise, 0) } : block;
}

/**
 * The cues of a block as they are written down: its own, then those of each exercise with its name,
 * in the lesson's language.
 */
export function cueTexts(block: Block, language: string): string[] {
  const titles = exerciseTitles(block, language);
  return [
    ...block.cues.map(({ text }) => text),
    ...titles.flatMap((title, i) =>
      cuesOfExercise(block, i).map(({ text }) => `${title}: ${text}`),
    ),
  ].filter((text) => text.trim() !== '');
}
