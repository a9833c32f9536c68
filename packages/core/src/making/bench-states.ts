import { shotsOf } from '../framing/index.ts';
import { blocksOf, meetsTarget, type Lesson } from '../lesson/index.ts';
import type { Schedule } from '../schedule/index.ts';

export const benches = ['plan', 'script', 'film', 'assemble', 'check', 'share', 'log'] as const;
export type Bench = (typeof benches)[number];

export const benchStages = ['nothing', 'begun', 'ready'] as const;
/** How far a bench is with a lesson. */
export type BenchState = (typeof benchStages)[number];

/** What lies outside the lesson that says how far it is. */
export interface Around {
  /** Things the check found and nobody settled; null: nobody looked yet. */
  findings: number | null;
  shared: boolean;
  /** Whether results came back. */
  hasResults: boolean;
}

const by = (done: number, of: number): BenchState =>
  done === 0 ? 'nothing' : done < of ? 'begun' : 'ready';

/** Whether each length that is aimed at is met. */
const isOnTarget = ({ targets }: Lesson, { videoMs, studentMs }: Schedule): boolean =>
  meetsTarget(videoMs, targets.video) && meetsTarget(studentMs, targets.session);

/** How far each bench is. */
export function benchStates(
  lesson: Lesson,
  schedule: Schedule,
  { findings, shared, hasResults }: Around,
): Record<Bench, BenchState> {
  const blocks = blocksOf(lesson);
  const filmable = blocks.filter((block) => shotsOf(block).length > 0);
  const filmed = filmable.filter(({ footage }) => footage).length;
  const said = blocks.filter(({ script, cues }) => script.trim() !== '' || cues.length > 0).length;
  const film = by(filmed, filmable.length);
  return {
    plan: blocks.length === 0 ? 'nothing' : isOnTarget(lesson, schedule) ? 'ready' : 'begun',
    script: by(said, blocks.length),
    film,
    // What is filmed is cut by itself; the whole of it is there once all is filmed.
    assemble: film,
    check: film === 'nothing' ? 'nothing' : findings === 0 ? 'ready' : 'begun',
    share: shared ? 'ready' : 'nothing',
    log: hasResults ? 'begun' : 'nothing',
  };
}
