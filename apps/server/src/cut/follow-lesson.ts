import type { FollowChoice, FollowForm, FollowLesson, FollowTake } from '@zest/contract';
import { takesIn } from '@zest/core/assembly';
import { spaceLedger } from '@zest/core/ledger';
import {
  allCautions,
  allForms,
  waysOf,
  wayWords,
  allKit,
  blocksOf,
  questionOf,
  exerciseTitles,
  lessonAsChosen,
  type Block,
  type Lesson,
} from '@zest/core/lesson';
import { scorePrompts } from '@zest/core/results';
import { weekTitle } from '@zest/core/schedule';
import { instantOfFrame } from '@zest/core/time';
import type { TakeRow } from '../db/models.ts';
import { renditionsOf } from '../db/takes.ts';
import type { MediaStore } from '../media/store.ts';
import { sharedCut, type SharedCut } from './shared-cut.ts';

type SharedTakes = ReadonlyMap<string, TakeRow>;

/** As much of a content hash as tells one version from another. */
const versionOf = (sha: string) => sha.slice(0, 12);

async function takesOf(
  assembly: SharedCut['assembly'],
  media: SharedCut['media'],
  rows: SharedTakes,
  store: MediaStore,
): Promise<FollowTake[]> {
  const takes = [...takesIn(assembly)].map(async (id) => {
    const [sha, row] = [media.get(id)?.sha, rows.get(id)];
    if (!sha || !row) return [];
    const renditions = renditionsOf(row).map(({ lines, bytes, sha: rendition }) => ({
      lines,
      bytes,
      version: versionOf(rendition),
    }));
    return {
      id,
      bytes: await store.sizeOf(sha),
      durationMs: instantOfFrame(row.frames),
      version: versionOf(sha),
      renditions,
    };
  });
  return (await Promise.all(takes)).flat();
}

function roomOf(lesson: Lesson): FollowLesson['room'] {
  const [width, depth, height] = spaceLedger(lesson).needs;
  return width && depth && height
    ? { widthCm: width.cm, depthCm: depth.cm, heightCm: height.cm }
    : null;
}

/** Another form with the name of the exercise it is for. */
const formsOf = (block: Block, language: string): FollowForm[] => {
  const titles = exerciseTitles(block, language);
  return allForms(block).map(({ form, text, rule, target, exercise }) => ({
    ...{ form, text, rule, target },
    exercise: exercise === null ? null : (titles[exercise] ?? ''),
  }));
};

/** What of a link the page is told. */
type Shown = { lessonId: string; revision: number; version: number; classId: string | null };

/** Everything the student's page gets, with the takes it plays and their content by their ids. */
export async function followLesson(
  { lessonId, revision, version, classId }: Shown,
  choice: FollowChoice,
  store: MediaStore,
): Promise<{ lesson: FollowLesson; takes: SharedTakes; shas: Map<string, string> }> {
  const { lesson, assembly, media, takes } = await sharedCut(
    lessonId,
    revision,
    store,
    (stored) => lessonAsChosen(stored, choice),
    JSON.stringify(choice),
  );
  const blocks = blocksOf(lesson);
  const shown: FollowLesson = {
    title: lesson.title,
    series:
      lesson.series.week === null
        ? lesson.series.name
        : weekTitle(lesson.series.name, lesson.series.week, lesson.settings.language),
    outcome: lesson.outcome,
    kit: blocks.flatMap((b) =>
      allKit(b).map(({ name, quantity, share, standIn }) => ({ name, quantity, share, standIn })),
    ),
    room: roomOf(lesson),
    units: lesson.settings.units,
    cautions: [...new Set(blocks.flatMap(allCautions))],
    version,
    lessonId,
    classId,
    takes: await takesOf(assembly, media, takes, store),
    second: lesson.second?.language ?? null,
    blocks: blocks.map((block) => ({
      id: block.id,
      title: block.title,
      levels: formsOf(block, lesson.settings.language),
      ways: waysOf(block, lesson).map((way) => wayWords(way, lesson.settings)),
      question:
        block.kind === 'question'
          ? {
              question: questionOf(block),
              answer: block.answer,
              choices: block.choices ?? [],
            }
          : null,
      isCalled: block.kind === 'called',
    })),
    prompts: scorePrompts(lesson),
    // What could not be kept is the teacher's to know.
    assembly: { ...assembly, dropped: [] },
  };
  return {
    lesson: shown,
    takes,
    shas: new Map(
      [...takesIn(assembly)].flatMap((id) =>
        media.get(id) ? [[id, media.get(id)?.sha ?? '']] : [],
      ),
    ),
  };
}
