import { performersOf, shortOf, type CountedBout } from '../assembly/index.ts';
import { changeBlock, otherSide, type Block, type Side } from '../lesson/index.ts';
import { SURE_REPETITION, timesKnown, type PictureFault } from '../signal/index.ts';
import { intersect, spanLength, totalLength, type TimeSpan } from '../time/index.ts';
import { COMMON, type Hit } from './finding.ts';
import type { Rule, ToCheck } from './rule.ts';
import { shownAt, shownStretches, type WatchedBlock } from './watched-blocks.ts';

/** Kinds in which somebody shows a movement; a talk needs no feet in the picture. */
const isMoved = ({ kind }: Block) => kind !== 'talk' && kind !== 'card' && kind !== 'question';
const isTapped = ({ edits }: Block) => edits.some(({ kind }) => kind === 'taps');

/** A rule of one block whose take was looked at, run over all of them. */
const each =
  (run: (watched: WatchedBlock) => Omit<Hit, 'place' | 'blockId'> | null) =>
  ({ watched }: ToCheck): Hit[] =>
    watched.flatMap((seen) => {
      const hit = run(seen);
      return hit ? [{ ...hit, place: [seen.block.id], blockId: seen.block.id }] : [];
    });

/** What is counted aloud is what is planned. */
const countsAsSaid = each((watched) => {
  const bout = watched.bouts?.find(({ aloud, planned }) => aloud !== null && aloud !== planned);
  return bout
    ? {
        atMs: shownAt(watched, bout.startMs),
        figures: { planned: bout.planned, said: bout.aloud ?? 0 },
      }
    : null;
});

/** The bouts of a block that is not counted by hand; none where nobody is seen. */
const boutsOf = ({ block, bouts }: WatchedBlock): readonly CountedBout[] =>
  bouts && !isTapped(block) ? bouts : [];
const unsureIn = (watched: WatchedBlock) => boutsOf(watched).find(({ isSure }) => !isSure);
const wrongIn = (watched: WatchedBlock) =>
  boutsOf(watched).find(({ planned, done }) => planned !== done.length);

/** Whether what is seen can be told surely. */
const countsSure = each((watched) => {
  const unsure = unsureIn(watched);
  if (!unsure) return null;
  const { planned, aloud, done, isPlain, startMs } = unsure;
  const doubt = isPlain ? 'far' : performersOf(watched.block) > 1 ? 'several' : 'hidden';
  return {
    atMs: shownAt(watched, startMs),
    figures: {
      planned,
      isAloud: aloud === null ? 'no' : 'yes',
      aloud: aloud ?? 0,
      done: done.length,
      doubt,
    },
  };
});

/** What is counted is what is done. */
const countsAgree = each((watched) => {
  const { block } = watched;
  const wrong = wrongIn(watched);
  if (!wrong || unsureIn(watched)) return null;
  const done = wrong.done.length;
  const isAlike =
    block.kind === 'reps' &&
    done > 0 &&
    boutsOf(watched).every((bout) => bout.planned === wrong.planned && bout.done.length === done);
  const plan = (draft: Block) => void (draft.kind === 'reps' && (draft.reps = done));
  return {
    atMs: shownAt(watched, wrong.startMs),
    figures: { planned: wrong.planned, done },
    remedy: isAlike ? { change: changeBlock(block.id, plan) } : null,
  };
});

/** Counted surely, but when each is over is not: nothing is seen to move before the next begins. */
const countTimesSure = each((watched) => {
  if (unsureIn(watched) || wrongIn(watched)) return null;
  const all = boutsOf(watched).flatMap(({ done }) => done);
  const [first] = all;
  if (!first || timesKnown(all)) return null;
  const usualMs = all.reduce((sum, { withinMs }) => sum + withinMs, 0) / all.length;
  return {
    atMs: shownAt(watched, first.atMs),
    figures: { withinMs: Math.round(usualMs / 100) * 100 },
  };
});

/** Repetitions that went less far than the others: a hint to look, no verdict. */
const movesWhole = each((watched) => {
  const short = (watched.bouts ?? []).flatMap(shortOf);
  const [first] = short;
  if (!first) return null;
  const sizes = short.map(({ size }) => `${Math.round(size * 100)} %`).join(', ');
  return { atMs: shownAt(watched, first.topMs), figures: { n: short.length, sizes } };
});

/** The part of the sure repetitions that must be seen on the other side. */
const OTHER_SIDE = 0.7;

function isOtherSide({ side, done }: CountedBout): boolean {
  const known = done.filter((one) => one.side !== null && one.confidence >= SURE_REPETITION);
  const others = known.filter((one) => one.side !== side);
  return side !== null && known.length > 1 && others.length > OTHER_SIDE * known.length;
}

/** The side that is said is the side that moves. */
const sidesAsSeen = each((watched) => {
  const { block } = watched;
  if (block.facing.performer !== 'camera') return null;
  const wrong = (watched.bouts ?? []).find(isOtherSide);
  if (!wrong?.side) return null;
  const swaps = block.kind === 'reps' && block.sides !== 'both';
  const first: Side = swaps ? otherSide(block.startSide) : wrong.side;
  const swap = (draft: Block) => void ('startSide' in draft && (draft.startSide = first));
  return {
    atMs: shownAt(watched, wrong.startMs),
    figures: { said: wrong.side, seen: otherSide(wrong.side), first },
    remedy: swaps ? { change: changeBlock(block.id, swap) } : null,
  };
});

/** Beyond the edge for less than this is not noticed. */
const OUT_MS = 500;

/** The performer is in the picture while something is shown. */
const performerInPicture = each((watched) => {
  const moved = isMoved(watched.block);
  const out = watched.seen.outOfFrame.filter(({ isGone }) => moved || isGone);
  const shown = shownStretches(watched, out).filter((stretch) => spanLength(stretch) >= OUT_MS);
  const [first] = shown;
  if (!first) return null;
  return {
    atMs: shownAt(watched, first.startMs),
    figures: {
      isGone: out.some(({ isGone }) => isGone) ? 'yes' : 'no',
      edges: [...new Set(out.flatMap((stretch) => stretch.edges))].join(', '),
      outMs: totalLength(shown),
      n: shown.length,
    },
  };
});

/** A performer smaller than this part of the picture's height cannot be made out on a phone. */
const SMALLEST = 0.3;

const performerLargeEnough = each((watched) => {
  const { bodyHeight } = watched.seen;
  if (bodyHeight === null || bodyHeight >= SMALLEST || !isMoved(watched.block)) return null;
  const figures = { height: Math.round(bodyHeight * 100), least: SMALLEST * 100 };
  return { atMs: watched.placed.startMs, figures };
});

const FAULT_MS = 1_000;

/** The picture is light, steady and sharp. */
const pictureWithout = (fault: PictureFault) =>
  each((watched) => {
    const faults = watched.seen.faults.filter((one) => one.fault === fault);
    const shown = shownStretches(watched, faults);
    const [first] = shown;
    if (!first || totalLength(shown) < FAULT_MS) return null;
    return { atMs: shownAt(watched, first.startMs), figures: { shownMs: totalLength(shown) } };
  });

/** Nothing flashes more than three times a second. */
const nothingFlashes = each((watched) => {
  const [first] = shownStretches(watched, watched.facts.watched.flashes);
  return first ? { atMs: shownAt(watched, first.startMs) } : null;
});

/** Still for less than this is a breath. */
const STILL_MS = 2_500;

/** Who works to the clock works as long as the clock runs. */
const workFilled = each((watched) => {
  const { spans, seen } = watched;
  if (!seen.isSeen) return null;
  const works: TimeSpan[] = spans.filter(
    ({ kind, movement }) =>
      kind === 'work' &&
      movement !== undefined &&
      movement !== 'other' &&
      movement !== 'one-leg-balance',
  );
  const idle = intersect(shownStretches(watched, seen.still), works).filter(
    (stretch) => spanLength(stretch) >= STILL_MS,
  );
  const workMs = totalLength(works);
  return idle[0]
    ? {
        atMs: shownAt(watched, idle[0].startMs),
        figures: { workMs, movesMs: workMs - totalLength(idle) },
      }
    : null;
});

/** Holds may be steady a little less long than planned. */
const STEADY = 0.7;

/** Holds are held. */
const holdsSteady = each((watched) => {
  const { spans, seen } = watched;
  const holds: TimeSpan[] = spans.filter(({ kind }) => kind === 'hold');
  const heldMs = totalLength(holds);
  const stillMs = totalLength(intersect(shownStretches(watched, seen.still), holds));
  if (!seen.isSeen || holds.length === 0 || stillMs >= STEADY * heldMs) return null;
  return { atMs: shownAt(watched, holds[0]?.startMs ?? 0), figures: { heldMs, stillMs } };
});

/** Dead time before and after is noticed from here. */
const DEAD_MS = 1_500;
/** A little air is kept before the first word or movement. */
const AIR_MS = 400;

interface DeadTime {
  deadMs: number;
  atMs: number | null;
  /** What to leave out of the block. */
  fromMs: number;
  toMs: number;
}

/** Stretches of a talk before its first word or movement, or after its last. */
function deadTimeOf(watched: WatchedBlock, where: 'head' | 'tail'): DeadTime | null {
  const { block, seen, alignment, bodyMs } = watched;
  if (block.kind !== 'talk' || block.fixedMs !== null || !seen.active) return null;
  const { startMs, endMs } = alignment.spanToBlock(seen.active);
  const dead =
    where === 'head' ? { startMs: 0, endMs: startMs } : { startMs: endMs, endMs: bodyMs };
  const middleMs = (dead.startMs + dead.endMs) / 2;
  const isLeftOut = block.edits.some(
    (edit) => edit.kind === 'leave-out' && edit.fromMs <= middleMs && middleMs < edit.toMs,
  );
  if (spanLength(dead) < DEAD_MS || isLeftOut) return null;
  return {
    deadMs: spanLength(dead),
    atMs: where === 'head' ? watched.placed.startMs : shownAt(watched, endMs),
    fromMs: where === 'head' ? 0 : Math.round(endMs + AIR_MS),
    toMs: Math.round(where === 'head' ? startMs - AIR_MS : bodyMs),
  };
}

/** A talk begins with its first word or movement and ends with its last. */
const noDeadTime =
  (where: 'head' | 'tail') =>
  (all: ToCheck): Hit[] =>
    each((watched) => {
      const dead = deadTimeOf(watched, where);
      if (!dead) return null;
      const { deadMs, atMs, fromMs, toMs } = dead;
      const leaveOut = (draft: Block) =>
        void draft.edits.push({ id: all.makeId(), kind: 'leave-out', fromMs, toMs });
      return {
        atMs,
        figures: { deadMs },
        remedy: { change: changeBlock(watched.block.id, leaveOut) },
      };
    })(all);

const SEE = 'cannot see it';
const LOST = 'gets lost';
const LATE = 'runs out of time';
const fault = (
  id: string,
  of: PictureFault,
  source: Rule['source'],
  harm: Rule['harm'] = SEE,
): Rule => ({
  id,
  harm,
  bench: 'film',
  source,
  seenAt: ['picture'],
  run: pictureWithout(of),
});

export const seenRules: readonly Rule[] = [
  { id: 'count', harm: LOST, bench: 'film', source: COMMON, seenAt: ['counter'], run: countsAgree },
  {
    id: 'count-unsure',
    harm: LOST,
    bench: 'assemble',
    source: null,
    seenAt: ['counter'],
    run: countsSure,
  },
  {
    id: 'count-times',
    harm: LOST,
    bench: 'assemble',
    source: null,
    seenAt: ['counter'],
    run: countTimesSure,
  },
  {
    id: 'count-said',
    harm: LOST,
    bench: 'film',
    source: COMMON,
    seenAt: ['counter'],
    run: countsAsSaid,
  },
  {
    id: 'short',
    harm: LOST,
    bench: 'assemble',
    source: COMMON,
    seenAt: ['picture'],
    run: movesWhole,
  },
  {
    id: 'side-seen',
    harm: LOST,
    bench: 'plan',
    source: null,
    seenAt: ['side', 'counter'],
    run: sidesAsSeen,
  },
  {
    id: 'out',
    harm: SEE,
    bench: 'film',
    source: null,
    seenAt: ['picture'],
    run: performerInPicture,
  },
  {
    id: 'small',
    harm: SEE,
    bench: 'assemble',
    source: COMMON,
    seenAt: ['picture'],
    run: performerLargeEnough,
  },
  fault('black', 'black', null),
  fault('too-dark', 'too dark', null),
  fault('too-bright', 'too bright', null),
  fault('light-from-behind', 'light from behind', COMMON),
  fault('shaken', 'shaken', null),
  fault('out-of-focus', 'out of focus', null),
  fault('frozen', 'frozen', null, LOST),
  {
    id: 'flashes',
    harm: 'gets hurt',
    bench: 'assemble',
    source: 'WCAG 2.2, 2.3.1',
    seenAt: ['picture'],
    run: nothingFlashes,
  },
  { id: 'idle', harm: LOST, bench: 'film', source: COMMON, seenAt: ['clock'], run: workFilled },
  {
    id: 'unsteady',
    harm: LOST,
    bench: 'assemble',
    source: null,
    seenAt: ['clock'],
    run: holdsSteady,
  },
  {
    id: 'dead-head',
    harm: LATE,
    bench: 'assemble',
    source: COMMON,
    seenAt: ['picture'],
    run: noDeadTime('head'),
  },
  {
    id: 'dead-tail',
    harm: LATE,
    bench: 'assemble',
    source: COMMON,
    seenAt: ['picture'],
    run: noDeadTime('tail'),
  },
];
