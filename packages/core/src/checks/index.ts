import type { Assembly, TakeFacts } from '../assembly/index.ts';
import type { Lesson, MakeId } from '../lesson/index.ts';
import type { Measure } from '../overlay/index.ts';
import { scheduleLesson } from '../schedule/index.ts';
import * as cutRules from './cut-rules.ts';
import { harms, type Finding, type Found } from './finding.ts';
import * as heardRules from './heard-rules.ts';
import { numbersAsPlanned } from './said-numbers.ts';
import * as momentRules from './moment-rules.ts';
import * as planRules from './plan-rules.ts';
import * as seenRules from './seen-rules.ts';
import { watchedBlocks } from './watched-blocks.ts';
import * as wordRules from './word-rules.ts';

export { harmNames, harms, type BenchName, type Finding, type Harm } from './finding.ts';

export interface LessonToCheck {
  lesson: Lesson;
  /** The cut made of the lesson and its takes. */
  cut: Assembly;
  takes: ReadonlyMap<string, TakeFacts>;
  /** Makes ids for what remedies put in. */
  makeId: MakeId;
  /** Measures bold text in the font of the overlays. */
  measure: Measure;
}

/**
 * Everything that is not as it should be, the worst harm first, in the order of the lesson; what is
 * left so comes with the teacher's word.
 */
export function checkLesson({ lesson, cut, takes, makeId, measure }: LessonToCheck): Finding[] {
  const plan = { lesson, schedule: scheduleLesson(lesson), makeId };
  const made = { lesson, cut, schedule: plan.schedule, takes };
  const watched = watchedBlocks(lesson, plan.schedule, cut, takes);
  const found: Found[] = [
    ...planRules.kitInTime(plan),
    ...planRules.effortInOrder(plan),
    ...planRules.cautionsWhereNeeded(plan),
    ...planRules.sidesEven(plan),
    ...planRules.pausesSayWhat(plan),
    ...planRules.partsPresent(plan),
    ...planRules.lengthInSlot(plan),
    ...wordRules.sidesForEitherHand(plan),
    ...wordRules.wordsFit(plan),
    ...numbersAsPlanned(plan),
    ...wordRules.nobodyNamed(plan),
    ...wordRules.nobodyNamedInText(plan),
    ...wordRules.musicLicensed(plan),
    ...cutRules.footageThere(made),
    ...cutRules.footageLongEnough(made),
    ...cutRules.wordsLargeEnough(made),
    ...cutRules.wordsFitTheirPlace({ cut, measure }),
    ...cutRules.cuesLongEnough(made),
    ...momentRules.cuesWithTheirMove({ ...plan, cut }),
    ...momentRules.countsWithTheirMove({ ...plan, cut }),
    ...cutRules.performerFree(made),
    ...cutRules.insideSafeArea(made),
    ...cutRules.captionsRight(made),
    ...cutRules.changesKept(made),
    ...seenRules.countsAgree(watched),
    ...seenRules.countsAsSaid(watched),
    ...seenRules.movesWhole(watched),
    ...seenRules.sidesAsSeen(watched),
    ...seenRules.performerInPicture(watched),
    ...seenRules.performerLargeEnough(watched),
    ...seenRules.pictureGood(watched),
    ...seenRules.nothingFlashes(watched),
    ...seenRules.workFilled(watched),
    ...seenRules.noDeadTime(watched, makeId),
    ...heardRules.scriptSaid(watched),
    ...heardRules.saidSlowly(watched),
    ...heardRules.voiceClear(watched),
  ];
  const words = new Map(lesson.waived.map(({ key, word }) => [key, word]));
  const order = new Map(plan.schedule.blocks.map(({ block }, i) => [block.id, i]));
  const placeOf = ({ harm, blockId }: Found) =>
    harms.indexOf(harm) * 10_000 + (blockId === null ? -1 : (order.get(blockId) ?? 0));
  return found
    .map((finding) => ({ ...finding, waived: words.get(finding.key) ?? null }))
    .sort((a, b) => placeOf(a) - placeOf(b));
}
