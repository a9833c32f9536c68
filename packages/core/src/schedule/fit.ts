import {
  applyChanges,
  blocksOf,
  figuresOf,
  type FigureChange,
  type Lesson,
  type Target,
} from '../lesson/index.ts';
import { produce } from 'immer';
import { clockText } from '../time/index.ts';
import { teacherText } from '../words/index.ts';
import { lengthOfBlock } from './block.ts';
import { mostCost, optionsWithin, partsOf, reach, type Part } from './fit-parts.ts';
import {
  allSums,
  costOf,
  Effort,
  optionsOf,
  reachableSums,
  TooMuchWork,
  type Option,
  type Window,
} from './fit-search.ts';

export interface FitProposal {
  changes: FigureChange[];
  /** Sum of steps times weights. */
  cost: number;
  videoMs: number;
  sessionMs: number;
}

export interface FitResult {
  /**
   * `fits`: the cheapest proposal that meets every target. `nearest`: none does, and this one comes
   * closest.
   */
  kind: 'fits' | 'nearest';
  /**
   * No cheaper or nearer one exists. Without it, lengths were rounded to reckon the changes in
   * time.
   */
  isExact: boolean;
  proposal: FitProposal;
  /** What stands in the way, in words; empty when it fits. */
  obstacles: string[];
}

const EVERYTHING: Window = { fromMs: -Infinity, toMs: Infinity };
const windowOf = (target: Target | null, nowMs: number): Window =>
  target
    ? {
        fromMs: target.ms - target.toleranceMs - nowMs,
        toMs: target.ms + target.toleranceMs - nowMs,
      }
    : EVERYTHING;
const outside = (ms: number, { fromMs, toMs }: Window) => Math.max(0, fromMs - ms, ms - toMs);

interface Found {
  video: Option[];
  practice: Option[];
  videoMs: number;
  practiceMs: number;
  cost: number;
  /** How far outside the targets, both clocks together. */
  missMs: number;
}

/** What is done off the video is never rounded. */
const PRACTICE_GRID_MS = 1;

interface Task {
  parts: { video: Part[]; practice: Part[] };
  /** Changes of length on the video are rounded to it. */
  gridMs: number;
  /** What each clock may change by. */
  video: Window;
  session: Window;
  effort: Effort;
}

/**
 * A change of the video that is best where a target lies out of reach: as far towards it as it
 * goes, for a millisecond that way never costs the other target more than it gains this one. It
 * `isOnly` best where it costs the other one nothing. Null where both can be reached.
 */
function extremeOf({ parts, gridMs, video, session }: Task): {
  videoMs: number;
  isOnly: boolean;
} | null {
  const [v, p] = [reach(parts.video, gridMs), reach(parts.practice, PRACTICE_GRID_MS)];
  const [least, most] = [v.fromMs + p.fromMs, v.toMs + p.toMs];
  if (v.fromMs > video.toMs || least > session.toMs)
    return { videoMs: v.fromMs, isOnly: v.fromMs >= video.fromMs && least >= session.fromMs };
  if (v.toMs < video.fromMs || most < session.fromMs)
    return { videoMs: v.toMs, isOnly: v.toMs <= video.toMs && most <= session.toMs };
  return null;
}

const onlyOf = (task: Task): number | null => {
  const extreme = extremeOf(task);
  return extreme?.isOnly ? extreme.videoMs : null;
};

const widened = ({ fromMs, toMs }: Window, byMs: number): Window => ({
  fromMs: fromMs - byMs,
  toMs: toMs + byMs,
});

/**
 * Of all combinations that miss neither target by more than `slackMs` and cost at most `budget`:
 * the one nearest to both, then the cheapest.
 */
function searchWithin(task: Task, budget: number, slackMs: number): Found | null {
  const { parts, gridMs, video, session, effort } = task;
  const span = reach(parts.practice, PRACTICE_GRID_MS);
  const [wideVideo, wideSession] = [widened(video, slackMs), widened(session, slackMs)];
  const only = onlyOf(task);
  const onVideo: Window = {
    fromMs: Math.max(wideVideo.fromMs, wideSession.fromMs - span.toMs, only ?? -Infinity),
    toMs: Math.min(wideVideo.toMs, wideSession.toMs - span.fromMs, only ?? Infinity),
  };
  const inPractice: Window = {
    fromMs: wideSession.fromMs - onVideo.toMs,
    toMs: wideSession.toMs - onVideo.fromMs,
  };
  const videoSums = reachableSums(
    parts.video.map((part) => optionsWithin(part, budget, gridMs, effort)),
    onVideo,
    budget,
    effort,
  );
  const practiceSums = reachableSums(
    parts.practice.map((part) => optionsWithin(part, budget, PRACTICE_GRID_MS, effort)),
    inPractice,
    budget,
    effort,
  );
  let best: Found | null = null;
  for (const [videoMs, v] of videoSums) {
    effort.spend(practiceSums.size);
    for (const [practiceMs, p] of practiceSums) {
      const cost = costOf(v) + costOf(p);
      const missMs = outside(videoMs, video) + outside(videoMs + practiceMs, session);
      if (cost > budget || missMs > slackMs) continue;
      if (best && (missMs > best.missMs || (missMs === best.missMs && cost >= best.cost))) continue;
      best = { video: optionsOf(v), practice: optionsOf(p), videoMs, practiceMs, cost, missMs };
    }
  }
  return best;
}

const allCosts = ({ parts }: Task) =>
  [...parts.video, ...parts.practice].reduce((sum, part) => sum + mostCost(part), 0);

/**
 * Finds the cheapest that misses the targets by no more than `slackMs`, which something has to. The
 * budget grows until a proposal within it is found: a way that costs no more than the budget takes
 * no option that costs more, so nothing cheaper is overlooked.
 */
function cheapestWithin(task: Task, slackMs: number): Found {
  const all = allCosts(task);
  // Where all figures go as far as they can, it costs what it costs.
  for (let budget = onlyOf(task) === null ? 4 : all; ; budget = Math.ceil(budget * 1.5)) {
    const found = searchWithin(task, Math.min(budget, all), slackMs);
    if (found) return found;
    if (budget >= all) throw new Error('Nothing lies within the slack that was measured.');
  }
}

/** The least that any combination misses the targets by, in milliseconds over both clocks. */
function leastMiss(task: Task): number {
  const sums = (parts: readonly Part[], gridMs: number) =>
    allSums(
      parts.map((part) => optionsWithin(part, Infinity, gridMs, task.effort)),
      task.effort,
    );
  const practice = sums(task.parts.practice, PRACTICE_GRID_MS);
  let least = Infinity;
  const extreme = extremeOf(task);
  for (const videoMs of extreme ? [extreme.videoMs] : sums(task.parts.video, task.gridMs)) {
    const off = outside(videoMs, task.video);
    if (off >= least) continue;
    task.effort.spend(practice.length);
    for (const practiceMs of practice)
      least = Math.min(least, off + outside(videoMs + practiceMs, task.session));
  }
  return least;
}

function changesOf(parts: readonly Part[], options: readonly Option[]): FigureChange[] {
  return parts.flatMap(({ block, knobs }, i) =>
    knobs.flatMap(({ key, label, unit, from, values }, k) => {
      const to = values[options[i]?.pick[k] ?? 0]?.value ?? from;
      return to === from
        ? []
        : [{ blockId: block.id, blockTitle: block.title, key, label, unit, from, to }];
    }),
  );
}

function cannot(
  clock: 'video' | 'session',
  target: Target | null,
  nowMs: number,
  reachable: Window,
  window: Window,
): string[] {
  if (!target) return [];
  const least = nowMs + reachable.fromMs;
  const most = nowMs + reachable.toMs;
  const aim = { clock, aim: clockText(target.ms), toleranceMs: target.toleranceMs };
  if (reachable.toMs < window.fromMs)
    return [teacherText('fit.no-longer', { ...aim, most: clockText(most) })];
  if (reachable.fromMs > window.toMs)
    return [teacherText('fit.no-shorter', { ...aim, least: clockText(least) })];
  return [];
}

function obstaclesOf(
  lesson: Lesson,
  task: Task,
  nowMs: { video: number; session: number },
): string[] {
  const video = reach(task.parts.video, task.gridMs);
  const practice = reach(task.parts.practice, PRACTICE_GRID_MS);
  const session = { fromMs: video.fromMs + practice.fromMs, toMs: video.toMs + practice.toMs };
  const words = [
    ...cannot('video', lesson.targets.video, nowMs.video, video, task.video),
    ...cannot('session', lesson.targets.session, nowMs.session, session, task.session),
  ];
  if (words.length === 0) words.push(teacherText('fit.not-both'));
  const locked = blocksOf(lesson).flatMap((block) =>
    figuresOf(block)
      .filter((f) => f.fit && block.locked.includes(f.key))
      .map((f) => teacherText('fit.locked-one', { figure: f.label, block: block.title })),
  );
  if (locked.length > 0)
    words.push(
      teacherText('fit.locked', {
        figures: locked.slice(0, 6).join(', '),
        more: Math.max(0, locked.length - 6),
      }),
    );
  const spoken = blocksOf(lesson).filter(
    (block) => block.kind === 'talk' && block.fixedMs === null,
  ).length;
  if (spoken > 0) words.push(teacherText('fit.talks', { n: spoken }));
  return words;
}

/**
 * What one search may look at: a second or two. Finer grids are tried first; the last one has to
 * do.
 */
const MOST_WORK = 60_000_000;
const GRIDS_MS = [1, 50, 250, 1_000] as const;
/**
 * Rounded, a way is a little longer or shorter than it looks: the aim is moved by that much, at
 * most so often.
 */
const MOST_AIMS = 5;

const moved = ({ fromMs, toMs }: Window, byMs: number): Window => ({
  fromMs: fromMs + byMs,
  toMs: toMs + byMs,
});

function clocksOf(lesson: Lesson) {
  const lengths = blocksOf(lesson).map((block) => lengthOfBlock(block, lesson));
  const videoMs = lengths.reduce((sum, length) => sum + length.videoMs, 0);
  return { videoMs, sessionMs: lengths.reduce((sum, { offMs }) => sum + offMs, videoMs) };
}

function fitOnGrid(
  lesson: Lesson,
  parts: Task['parts'],
  gridMs: number,
  effort: Effort,
): FitResult {
  const { videoMs, sessionMs } = clocksOf(lesson);
  const windows = {
    video: windowOf(lesson.targets.video, videoMs),
    session: windowOf(lesson.targets.session, sessionMs),
  };
  let task: Task = { parts, gridMs, ...windows, effort };
  let nearest: { proposal: FitProposal; missMs: number } | null = null;
  let asReckoned = true;
  for (let aims = 0; aims < (gridMs === 1 ? 1 : MOST_AIMS); aims += 1) {
    const found = cheapestWithin(task, leastMiss(task));
    const changes = [
      ...changesOf(parts.video, found.video),
      ...changesOf(parts.practice, found.practice),
    ];
    const after = clocksOf(produce(lesson, applyChanges(changes)));
    const [byVideoMs, bySessionMs] = [after.videoMs - videoMs, after.sessionMs - sessionMs];
    const missMs = outside(byVideoMs, windows.video) + outside(bySessionMs, windows.session);
    asReckoned = byVideoMs === found.videoMs && bySessionMs === found.videoMs + found.practiceMs;
    if (!nearest || missMs < nearest.missMs)
      nearest = { proposal: { changes, cost: found.cost, ...after }, missMs };
    if (missMs === 0) break;
    task = {
      ...task,
      video: moved(windows.video, found.videoMs - byVideoMs),
      session: moved(windows.session, found.videoMs + found.practiceMs - bySessionMs),
    };
  }
  if (!nearest) throw new Error('At least one aim is taken.');
  const isExact =
    gridMs === 1 && asReckoned && [...parts.video, ...parts.practice].every((part) => part.isExact);
  if (nearest.missMs === 0)
    return { kind: 'fits', isExact, proposal: nearest.proposal, obstacles: [] };
  return {
    kind: 'nearest',
    isExact,
    proposal: nearest.proposal,
    obstacles: obstaclesOf(lesson, { ...task, ...windows }, { video: videoMs, session: sessionMs }),
  };
}

/**
 * Proposes the smallest change of figures that brings the lesson into its targets: the least sum of
 * steps times weights, within each figure's own bounds, locked figures untouched. Exact, by dynamic
 * programming over the sums each clock can reach; for a lesson with so many different lengths that
 * this would take minutes, changes of length are rounded, as little as has to be, and `isExact`
 * says so.
 */
export function fitLesson(lesson: Lesson): FitResult {
  const parts = partsOf(lesson);
  for (const gridMs of GRIDS_MS) {
    const isLast = gridMs === GRIDS_MS.at(-1);
    try {
      return fitOnGrid(lesson, parts, gridMs, new Effort(isLast ? Infinity : MOST_WORK));
    } catch (error) {
      if (isLast || !(error instanceof TooMuchWork)) throw error;
    }
  }
  throw new Error('The last grid has no limit.');
}

/** The lesson with what a fit proposes. */
export const applyFit = (lesson: Lesson, { proposal }: FitResult): Lesson =>
  produce(lesson, applyChanges(proposal.changes));

/** What a proposal is, as the line above its changes. */
export function fitTitle({ kind, isExact }: FitResult): string {
  if (kind === 'nearest') return teacherText('fit.nearest');
  return teacherText(isExact ? 'fit.smallest' : 'fit.small');
}
