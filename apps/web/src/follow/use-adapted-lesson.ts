import { useMemo, useState } from 'react';
import type { FollowLesson } from '@zest/contract';
import { forStudent } from '@zest/core/assembly';
import type { Choices } from './device.ts';
import { askMoments, chosenLevels, type LevelChoice } from './steps.ts';

/** The lesson in the forms, sizes and colours this student wants. */
export function useAdaptedLesson(lesson: FollowLesson, choices: Choices) {
  const [overrides, setOverrides] = useState<ReadonlyMap<string, LevelChoice>>(new Map());
  const levels = useMemo(
    () => chosenLevels(lesson.blocks, choices.level, overrides),
    [lesson.blocks, choices.level, overrides],
  );
  const { larger, contrast, calm } = choices;
  const assembly = useMemo(
    () => forStudent(lesson.assembly, { larger, contrast, calm, levels: levels.shown }),
    [lesson.assembly, larger, contrast, calm, levels],
  );
  const moments = useMemo(() => askMoments(lesson), [lesson]);
  return {
    assembly,
    moments,
    levels,
    /** The form wished for, whether the block has it or not. */
    wishedLevel: (blockId: string): LevelChoice => overrides.get(blockId) ?? choices.level,
    wishLevel: (blockId: string, level: LevelChoice) =>
      setOverrides((all) => new Map([...all, [blockId, level]])),
  };
}
