import type { Block, Lesson, Section } from '../lesson/index.ts';
import type { StudentMs, VideoMs } from '../time/index.ts';
import { timeBlock, type BlockTimes, type Timing } from './block.ts';
import type { Span } from './timeline-builder.ts';

/** Where something starts and how long it lasts, on the video clock and on the student clock. */
export interface TwoClocks {
  startMs: VideoMs;
  durationMs: number;
  studentStartMs: StudentMs;
  /** A length on the student clock. */
  studentMs: number;
}

export interface ScheduledBlock extends TwoClocks, BlockTimes {
  block: Block;
  sectionId: string;
}

export interface ScheduledSection extends TwoClocks {
  section: Section;
  blocks: ScheduledBlock[];
}

/**
 * The whole lesson on two clocks: video time, and student time, which also runs while the video is
 * paused.
 */
export interface Schedule {
  sections: ScheduledSection[];
  blocks: ScheduledBlock[];
  videoMs: number;
  studentMs: number;
}

const cache = new WeakMap<Block, Timing & { times: BlockTimes }>();

/**
 * Blocks are never changed in place, so an unchanged block keeps its times: one edit costs one
 * block.
 */
function timesOf(block: Block, { settings, audience }: Timing): BlockTimes {
  const known = cache.get(block);
  if (known?.settings === settings && known.audience === audience) return known.times;
  const times = timeBlock(block, { settings, audience });
  cache.set(block, { settings, audience, times });
  return times;
}

/** How long the video has waited for the student before a moment of the block's video time. */
export const waitedMs = (spans: readonly Span[], ms: number): number =>
  spans.reduce((sum, { offMs, endMs }) => (offMs > 0 && endMs <= ms ? sum + offMs : sum), 0);

/** Lays the lesson out: exact whole milliseconds, every part the sum of its parts. */
export function scheduleLesson(lesson: Lesson): Schedule {
  let videoMs = 0;
  let studentMs = 0;
  const sections = lesson.sections.map((section): ScheduledSection => {
    const startMs = videoMs;
    const studentStartMs = studentMs;
    const blocks = section.blocks.map((block): ScheduledBlock => {
      const times = timesOf(block, lesson);
      const durationMs = times.spans.at(-1)?.endMs ?? 0;
      const blockStudentMs = durationMs + times.offMs;
      const scheduled = {
        // Written out: spreading costs ten times as much over a long lesson.
        spans: times.spans,
        calls: times.calls,
        offMs: times.offMs,
        block,
        sectionId: section.id,
        startMs: videoMs,
        durationMs,
        studentStartMs: studentMs,
        studentMs: blockStudentMs,
      };
      videoMs += durationMs;
      studentMs += blockStudentMs;
      return scheduled;
    });
    return {
      section,
      blocks,
      startMs,
      durationMs: videoMs - startMs,
      studentStartMs,
      studentMs: studentMs - studentStartMs,
    };
  });
  return { sections, blocks: sections.flatMap((s) => s.blocks), videoMs, studentMs };
}
