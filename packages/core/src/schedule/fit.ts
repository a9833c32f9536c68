import {
  applyChanges,
  blocksOf,
  figuresOf,
  readFigure,
  writeFigure,
  type Block,
  type Figure,
  type FigureChange,
  type Lesson,
  type Target,
} from '../lesson/index.ts';
import { produce } from 'immer';
import { clockText, lengthText } from '../time/index.ts';
import { lengthOfBlock, type BlockLength } from './block.ts';
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
   * No cheaper or nearer one exists. Without it, lengths were rounded to reckon the changes of a
   * very long lesson in time.
   */
  isExact: boolean;
  proposal: FitProposal;
  /** What stands in the way, in words; empty when it fits. */
  obstacles: string[];
}

/**
 * A figure's values that fitting may choose: whole steps from half of it to half as much again, at
 * least one step each way.
 */
interface Knob {
  key: string;
  label: string;
  unit: Figure['unit'];
  from: number;
  /** Values with their cost, cheapest first; the first is the present one. */
  values: { value: number; cost: number }[];
}

function knobOf(block: Block, figure: Figure): Knob[] {
  const { fit, range, key, label, unit } = figure;
  if (!fit || block.locked.includes(key)) return [];
  const from = readFigure(block, key);
  const most = Math.max(1, Math.floor(from / 2 / fit.step));
  const values = [{ value: from, cost: 0 }];
  for (let steps = 1; steps <= most; steps += 1) {
    for (const value of [from - steps * fit.step, from + steps * fit.step]) {
      if (value >= range.min && value <= range.max)
        values.push({ value, cost: steps * fit.weight });
    }
  }
  return values.length > 1 ? [{ key, label, unit, from, values }] : [];
}

/**
 * A block with what fitting may change of it; what is done off the video is reckoned apart from all
 * that is on it.
 */
interface Part {
  block: Block;
  knobs: Knob[];
  /**
   * Milliseconds the knobs' values, given by their numbers in each knob's list, add to the clock
   * they belong to.
   */
  measure: (picks: readonly number[]) => number;
}

/** Remembers what was measured: a growing budget asks for the same combinations again. */
function measuredOnce(knobs: readonly Knob[], measure: Part['measure']): Part['measure'] {
  const known = new Map<number, number>();
  return (picks) => {
    const place = knobs.reduce((sum, { values }, i) => sum * values.length + (picks[i] ?? 0), 0);
    const deltaMs = known.get(place) ?? measure(picks);
    known.set(place, deltaMs);
    return deltaMs;
  };
}

/**
 * The clocks a figure's values change: of the video, and of what is done off it.
 * @param trial a copy of the block, which stays as it was
 */
function clocksChanged(trial: Block, { key, from, values }: Knob, lesson: Lesson) {
  const lengths = values.map(({ value }) => {
    writeFigure(trial, key, value);
    return lengthOfBlock(trial, lesson);
  });
  writeFigure(trial, key, from);
  const changes = (clock: keyof BlockLength) =>
    lengths.some((length) => length[clock] !== lengths[0]?.[clock]);
  return { video: changes('videoMs'), off: changes('offMs') };
}

function partOf(
  block: Block,
  knobs: Knob[],
  clock: keyof BlockLength,
  gridMs: number,
  lesson: Lesson,
): Part[] {
  if (knobs.length === 0) return [];
  const trial = structuredClone(block);
  const nowMs = lengthOfBlock(block, lesson)[clock];
  const measure = (picks: readonly number[]) => {
    knobs.forEach(({ key, from, values }, i) =>
      writeFigure(trial, key, values[picks[i] ?? 0]?.value ?? from),
    );
    return Math.round((lengthOfBlock(trial, lesson)[clock] - nowMs) / gridMs) * gridMs;
  };
  return [{ block, knobs, measure: measuredOnce(knobs, measure) }];
}

/**
 * Figures that change one clock each. Those that change both at once, such as the rounds of a circuit
 * in which the student says when it goes on, stay as they are.
 * @param gridMs changes of length on the video are rounded to it
 */
function partsOf(lesson: Lesson, gridMs: number): { video: Part[]; practice: Part[] } {
  const parts: { video: Part[]; practice: Part[] } = { video: [], practice: [] };
  for (const block of blocksOf(lesson)) {
    const trial = structuredClone(block);
    const knobs = figuresOf(block)
      .flatMap((figure) => knobOf(block, figure))
      .map((knob) => ({ knob, changed: clocksChanged(trial, knob, lesson) }));
    const onVideo = knobs.flatMap(({ knob, changed }) => (changed.off ? [] : [knob]));
    const off = knobs.flatMap(({ knob, changed }) => (changed.off && !changed.video ? [knob] : []));
    parts.video.push(...partOf(block, onVideo, 'videoMs', gridMs, lesson));
    parts.practice.push(...partOf(block, off, 'offMs', 1, lesson));
  }
  return parts;
}

/**
 * Every way to set the part's figures for at most `budget`, for each time only the cheapest,
 * cheapest first.
 */
function optionsWithin({ knobs, measure }: Part, budget: number): Option[] {
  const best = new Map<number, Option>();
  const pick: number[] = [];
  const walk = (at: number, cost: number) => {
    const knob = knobs[at];
    if (!knob) {
      const deltaMs = measure(pick);
      const known = best.get(deltaMs);
      if (!known || cost < known.cost) best.set(deltaMs, { deltaMs, cost, pick: [...pick] });
      return;
    }
    for (let i = 0; i < knob.values.length; i += 1) {
      const valueCost = knob.values[i]?.cost ?? 0;
      if (cost + valueCost > budget) break;
      pick[at] = i;
      walk(at + 1, cost + valueCost);
    }
  };
  walk(0, 0);
  return [...best.values()].sort((a, b) => a.cost - b.cost);
}

const mostCost = ({ knobs }: Part) =>
  knobs.reduce((sum, { values }) => sum + (values.at(-1)?.cost ?? 0), 0);
/** The time with every knob at its least or most; every figure makes its block longer. */
const atExtreme = (part: Part, pick: (...values: number[]) => number) =>
  part.measure(
    part.knobs.map(({ values }) =>
      values.findIndex(({ value }) => value === pick(...values.map((v) => v.value))),
    ),
  );
const reach = (parts: readonly Part[]): Window => ({
  fromMs: parts.reduce((sum, part) => sum + atExtreme(part, Math.min), 0),
  toMs: parts.reduce((sum, part) => sum + atExtreme(part, Math.max), 0),
});

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

interface Task {
  parts: { video: Part[]; practice: Part[] };
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
function extremeOf({
  parts,
  video,
  session,
}: Pick<Task, 'parts' | 'video' | 'session'>): { videoMs: number; isOnly: boolean } | null {
  const [v, p] = [reach(parts.video), reach(parts.practice)];
  const [least, most] = [v.fromMs + p.fromMs, v.toMs + p.toMs];
  if (v.fromMs > video.toMs || least > session.toMs)
    return { videoMs: v.fromMs, isOnly: v.fromMs >= video.fromMs && least >= session.fromMs };
  if (v.toMs < video.fromMs || most < session.fromMs)
    return { videoMs: v.toMs, isOnly: v.toMs <= video.toMs && most <= session.toMs };
  return null;
}

const onlyOf = (task: Pick<Task, 'parts' | 'video' | 'session'>): number | null => {
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
function searchWithin(
  { parts, video, session, effort }: Task,
  budget: number,
  slackMs: number,
): Found | null {
  const span = reach(parts.practice);
  const [wideVideo, wideSession] = [widened(video, slackMs), widened(session, slackMs)];
  const only = onlyOf({ parts, video, session });
  const onVideo: Window = {
    fromMs: Math.max(wideVideo.fromMs, wideSession.fromMs - span.toMs, only ?? -Infinity),
    toMs: Math.min(wideVideo.toMs, wideSession.toMs - span.fromMs, only ?? Infinity),
  };
  const inPractice: Window = {
    fromMs: wideSession.fromMs - onVideo.toMs,
    toMs: wideSession.toMs - onVideo.fromMs,
  };
  const videoSums = reachableSums(
    parts.video.map((part) => optionsWithin(part, budget)),
    onVideo,
    budget,
    effort,
  );
  const practiceSums = reachableSums(
    parts.practice.map((part) => optionsWithin(part, budget)),
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
  const sums = (parts: readonly Part[]) =>
    allSums(
      parts.map((part) => optionsWithin(part, Infinity)),
      task.effort,
    );
  const practice = sums(task.parts.practice);
  let least = Infinity;
  const extreme = extremeOf(task);
  for (const videoMs of extreme ? [extreme.videoMs] : sums(task.parts.video)) {
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
  name: string,
  target: Target | null,
  nowMs: number,
  reachable: Window,
  window: Window,
): string[] {
  if (!target) return [];
  const least = nowMs + reachable.fromMs;
  const most = nowMs + reachable.toMs;
  const aim = `you aim for ${clockText(target.ms)}, give or take ${lengthText(target.toleranceMs)}`;
  if (reachable.toMs < window.fromMs)
    return [`The ${name} gets no longer than ${clockText(most)} by what may be changed; ${aim}.`];
  if (reachable.fromMs > window.toMs)
    return [`The ${name} gets no shorter than ${clockText(least)} by what may be changed; ${aim}.`];
  return [];
}

function obstaclesOf(
  lesson: Lesson,
  task: Task,
  nowMs: { video: number; session: number },
): string[] {
  const video = reach(task.parts.video);
  const practice = reach(task.parts.practice);
  const session = { fromMs: video.fromMs + practice.fromMs, toMs: video.toMs + practice.toMs };
  const words = [
    ...cannot('video', lesson.targets.video, nowMs.video, video, task.video),
    ...cannot('session', lesson.targets.session, nowMs.session, session, task.session),
  ];
  if (words.length === 0)
    words.push(
      'Each target can be met alone, but not both at once in whole steps. Widen a ' +
        'tolerance, or add or remove practice off the video.',
    );
  const locked = blocksOf(lesson).flatMap((block) =>
    figuresOf(block)
      .filter((f) => f.fit && block.locked.includes(f.key))
      .map((f) => `${f.label} of “${block.title}”`),
  );
  if (locked.length > 0)
    words.push(
      `Locked: ${locked.slice(0, 6).join(', ')}${locked.length > 6 ? ` and ${locked.length - 6} more` : ''}.`,
    );
  const spoken = blocksOf(lesson).filter(
    (block) => block.kind === 'talk' && block.fixedMs === null,
  ).length;
  if (spoken > 0)
    words.push(
      `${spoken} ${spoken === 1 ? 'talk lasts' : 'talks last'} as long as the words ` +
        'take: shorten the words or fix the length.',
    );
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

function fitOnGrid(lesson: Lesson, gridMs: number, effort: Effort): FitResult {
  const parts = partsOf(lesson, gridMs);
  const { videoMs, sessionMs } = clocksOf(lesson);
  const windows = {
    video: windowOf(lesson.targets.video, videoMs),
    session: windowOf(lesson.targets.session, sessionMs),
  };
  const isExact = gridMs === 1;
  let task: Task = { parts, ...windows, effort };
  let nearest: { proposal: FitProposal; missMs: number } | null = null;
  for (let aims = 0; aims < (isExact ? 1 : MOST_AIMS); aims += 1) {
    const found = cheapestWithin(task, leastMiss(task));
    const changes = [
      ...changesOf(parts.video, found.video),
      ...changesOf(parts.practice, found.practice),
    ];
    const after = clocksOf(produce(lesson, (draft) => applyChanges(changes)(draft)));
    const [byVideoMs, bySessionMs] = [after.videoMs - videoMs, after.sessionMs - sessionMs];
    const missMs = outside(byVideoMs, windows.video) + outside(bySessionMs, windows.session);
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
  for (const gridMs of GRIDS_MS) {
    const isLast = gridMs === GRIDS_MS.at(-1);
    try {
      return fitOnGrid(lesson, gridMs, new Effort(isLast ? Infinity : MOST_WORK));
    } catch (error) {
      if (isLast || !(error instanceof TooMuchWork)) throw error;
    }
  }
  throw new Error('The last grid has no limit.');
}

/** What a proposal is, as the line above its changes. */
export function fitTitle({ kind, isExact }: FitResult): string {
  if (kind === 'nearest') return 'The nearest that can be reached:';
  return isExact
    ? 'The smallest change that fits:'
    : 'A small change that fits (lengths rounded, for the lesson is very long):';
}
