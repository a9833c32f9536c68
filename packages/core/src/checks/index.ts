import { blocksOf, findBlock } from '../lesson/index.ts';
import { scheduleLesson } from '../schedule/index.ts';
import { teacherText } from '../words/index.ts';
import { cutRules } from './cut-rules.ts';
import { harms, keyOf, type Finding } from './finding.ts';
import { heardRules } from './heard-rules.ts';
import { momentRules } from './moment-rules.ts';
import { planRules } from './plan-rules.ts';
import type { Rule, ToCheck } from './rule.ts';
import { seenRules } from './seen-rules.ts';
import { watchedBlocks } from './watched-blocks.ts';
import { wordRules } from './word-rules.ts';

export { byCause, causeOf, causeWords, type Cause } from './causes.ts';
export { findingWords, harmName, harms, type Finding, type Harm } from './finding.ts';
export { whereSeen } from './where-seen.ts';

/** Every rule there is, in the order findings of one block are told. */
export const rules: readonly Rule[] = [
  ...planRules,
  ...wordRules,
  ...cutRules,
  ...momentRules,
  ...seenRules,
  ...heardRules,
];

export type LessonToCheck = Pick<ToCheck, 'lesson' | 'cut' | 'takes' | 'makeId' | 'measure'>;

/**
 * Everything that is not as it should be, the worst harm first, in the order of the lesson; what is
 * ignored comes with the reason. Before anything is filmed only what matters then.
 */
export function checkLesson(given: LessonToCheck): Finding[] {
  const { lesson, cut, takes } = given;
  const schedule = scheduleLesson(lesson);
  const all: ToCheck = { ...given, schedule, watched: watchedBlocks(lesson, schedule, cut, takes) };
  const words = new Map(lesson.waived.map(({ key, word }) => [key, word]));
  const order = new Map(schedule.blocks.map(({ block }, i) => [block.id, i]));
  const titleOf = (blockId: string | null) =>
    (blockId !== null && findBlock(lesson, blockId)?.title) || teacherText('untitled');
  const placeOf = ({ harm, blockId }: Finding) =>
    harms.indexOf(harm) * 10_000 + (blockId === null ? -1 : (order.get(blockId) ?? 0));
  const isFilmed = blocksOf(lesson).some(({ footage }) => footage && takes.has(footage.takeId));
  return rules
    .filter(({ onceFilmed }) => isFilmed || !onceFilmed)
    .flatMap((rule) =>
      rule.run(all).map((hit): Finding => {
        const key = keyOf(rule.id, hit.place);
        return {
          rule: rule.id,
          key,
          harm: hit.harm ?? rule.harm,
          bench: hit.bench ?? rule.bench,
          source: hit.source ?? rule.source,
          blockId: hit.blockId,
          atMs: hit.atMs ?? null,
          figures: { block: titleOf(hit.blockId), ...hit.figures },
          seenAt: hit.seenAt ?? rule.seenAt ?? [],
          remedy: hit.remedy ?? null,
          waived: words.get(key) ?? null,
        };
      }),
    )
    .sort((a, b) => placeOf(a) - placeOf(b));
}
