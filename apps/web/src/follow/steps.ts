import type { FollowBlock, FollowForm, FollowLesson } from '@zest/contract';
import { scoreMoments } from '@zest/core/assembly';
import type { ScorePrompt } from '@zest/core/results';
import type { TimeSpan } from '@zest/core/time';
import type { Choices } from './device.ts';

export type LevelChoice = Choices['level'];

/** A moment at which a number is asked for. */
export interface AskMoment extends TimeSpan {
  prompt: ScorePrompt;
  tryNo: number;
}

/** Every moment a lesson asks for a number, in the order they come. */
export function askMoments({
  prompts,
  assembly,
}: Pick<FollowLesson, 'prompts' | 'assembly'>): AskMoment[] {
  return prompts
    .filter(({ isAsked }) => isAsked)
    .flatMap((prompt) => {
      const moments = scoreMoments(assembly, prompt.blockId);
      // Time to write after each side asks for that side alone.
      const bySide = prompt.tries === 1 && moments.length > 1;
      return moments.map((span, i): AskMoment => ({
        ...span,
        prompt: bySide ? { ...prompt, sides: prompt.sides.slice(i, i + 1) } : prompt,
        tryNo: bySide ? 1 : i + 1,
      }));
    })
    .sort((a, b) => a.startMs - b.startMs);
}

/** When a question's choices are told to be right or wrong, in milliseconds of the video. */
export const toldFrom = ({ segments }: FollowLesson['assembly'], blockId: string): number =>
  segments.find(
    (segment) =>
      segment.blockId === blockId &&
      segment.source.kind === 'card' &&
      segment.source.card.choices?.some(({ isRight }) => isRight !== null),
  )?.startMs ?? Infinity;

/** The same number to be noted, with the aim of the form that is done. */
export const withAim = (
  prompt: ScorePrompt,
  form: Pick<FollowForm, 'target'> | undefined,
): ScorePrompt => ({ ...prompt, target: form?.target ?? prompt.target });

/**
 * Which forms are chosen for which block: for the whole lesson, or for one block by itself. A block
 * without that form stays as it is shown.
 */
export function chosenLevels(
  blocks: readonly FollowBlock[],
  level: LevelChoice,
  overrides: ReadonlyMap<string, LevelChoice>,
) {
  const shown = new Map<string, FollowForm[]>();
  for (const { id, levels } of blocks) {
    const wanted = overrides.get(id) ?? level;
    const forms = levels.filter(({ form }) => form === wanted);
    if (forms.length > 0) shown.set(id, forms);
  }
  return {
    shown,
    /** The chosen form of a whole block. */
    form: (blockId: string) => shown.get(blockId)?.find(({ exercise }) => exercise === null),
    of: (blockId: string): LevelChoice => shown.get(blockId)?.[0]?.form ?? 'standard',
  };
}
