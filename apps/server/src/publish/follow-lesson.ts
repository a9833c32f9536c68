import { stat } from 'node:fs/promises';
import type { FollowChoice, FollowLesson } from '@zest/contract';
import { takesIn } from '@zest/core/assembly';
import { spaceLedger } from '@zest/core/ledger';
import { blocksOf, forOtherHand, inSecondLanguage, type Lesson } from '@zest/core/lesson';
import { scorePrompts } from '@zest/core/results';
import type { MediaStore } from '../media/store.ts';
import { sharedCut, type SharedCut } from './shared-cut.ts';

/** The lesson as one student chose it. A called-out game in another order than it was filmed in shows its commands, not the performer. */
function chosen(lesson: Lesson, { hand, language, seed }: FollowChoice): Lesson {
  const own = hand === 'other hand' ? forOtherHand(lesson) : lesson;
  const told = language === 'second' ? inSecondLanguage(own) : own;
  if (seed === null) return told;
  const sections = told.sections.map((section) => ({ ...section, blocks: section.blocks.map((block) => (block.kind === 'called' ? { ...block, seed, footage: null, edits: [] } : block)) }));
  return { ...told, sections };
}

async function takeSizes(assembly: SharedCut['assembly'], media: SharedCut['media'], store: MediaStore): Promise<FollowLesson['takes']> {
  const sizes = [...takesIn(assembly)].map(async (id) => {
    const sha = media.get(id)?.sha;
    return sha ? { id, bytes: (await stat(store.pathOf(sha))).size } : [];
  });
  return (await Promise.all(sizes)).flat();
}

function roomOf(lesson: Lesson): FollowLesson['room'] {
  const [width, depth, height] = spaceLedger(lesson).needs;
  return width && depth && height ? { widthCm: width.cm, depthCm: depth.cm, heightCm: height.cm } : null;
}

/** What of a link the page is told. */
type Shown = { lessonId: string; revision: number; version: number; classId: string | null };

/** Everything the student's page gets, and the content of the takes it plays by their ids. */
export async function followLesson({ lessonId, revision, version, classId }: Shown, choice: FollowChoice, store: MediaStore): Promise<{ lesson: FollowLesson; shas: Map<string, string> }> {
  const { lesson, assembly, media } = await sharedCut(lessonId, revision, store, (stored) => chosen(stored, choice), JSON.stringify(choice));
  const blocks = blocksOf(lesson);
  const shown: FollowLesson = {
    title: lesson.title,
    series: lesson.series.week === null ? lesson.series.name : `${lesson.series.name} · week ${lesson.series.week}`,
    outcome: lesson.outcome,
    kit: blocks.flatMap((b) => b.kit.map(({ name, quantity, share, standIn }) => ({ name, quantity, share, standIn }))),
    room: roomOf(lesson),
    units: lesson.settings.units,
    cautions: [...new Set(blocks.flatMap((b) => b.cautions))],
    version,
    lessonId,
    classId,
    takes: await takeSizes(assembly, media, store),
    second: lesson.second?.language ?? null,
    blocks: blocks.map((block) => ({
      id: block.id,
      title: block.title,
      levels: block.levels.map(({ form, text, rule, target }) => ({ form, text, rule, target })),
      question: block.kind === 'question' ? { question: block.question || block.title, answer: block.answer } : null,
      isCalled: block.kind === 'called',
    })),
    prompts: scorePrompts(lesson),
    // What could not be kept is the teacher's to know.
    assembly: { ...assembly, dropped: [] },
  };
  return { lesson: shown, shas: new Map([...takesIn(assembly)].flatMap((id) => (media.get(id) ? [[id, media.get(id)?.sha ?? '']] : []))) };
}
