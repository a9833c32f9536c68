import { performersOf, shortOf, type CountedBout } from '../assembly/index.ts';
import { changeBlock, otherSide, type Block } from '../lesson/index.ts';
import { SURE_REPETITION, timesKnown, type PictureFault } from '../signal/index.ts';
import { intersect, lengthText, totalLength, type TimeSpan } from '../time/index.ts';
import { COUNT_WHY, type Found, type Harm } from './finding.ts';
import { shownAt, shownStretches, titleOf, type WatchedBlock } from './watched-blocks.ts';

/** Kinds in which somebody shows a movement; a talk needs no feet in the picture. */
const isMoved = ({ kind }: Block) => kind !== 'talk' && kind !== 'card' && kind !== 'question';
const isTapped = ({ edits }: Block) => edits.some(({ kind }) => kind === 'taps');

const times = (count: number) => `${count} ${count === 1 ? 'repetition' : 'repetitions'}`;

/** What is counted aloud is what is planned. */
export function countsAsSaid(blocks: readonly WatchedBlock[]): Found[] {
  return blocks.flatMap((watched): Found[] => {
    const { block } = watched;
    for (const bout of watched.bouts ?? []) {
      const said = bout.aloud;
      if (said !== null && said !== bout.planned)
        return [
          {
            key: `count said ${block.id}`,
            harm: 'gets lost',
            blockId: block.id,
            atMs: shownAt(watched, bout.startMs),
            say: `${titleOf(watched)}: ${times(bout.planned)} planned, ${said} counted aloud.`,
            why: COUNT_WHY,
            bench: 'film',
            remedy: null,
          },
        ];
    }
    return [];
  });
}

/** Counted surely, but when each is over is not: nothing is seen to move before the next begins. */
function timesUnsure(watched: WatchedBlock, bouts: readonly CountedBout[]): Found[] {
  const { block } = watched;
  const all = bouts.flatMap(({ done }) => done);
  const [first] = all;
  if (!first || timesKnown(all)) return [];
  const usualMs = all.reduce((sum, { withinMs }) => sum + withinMs, 0) / all.length;
  return [
    {
      key: `count times ${block.id}`,
      harm: 'gets lost',
      blockId: block.id,
      atMs: shownAt(watched, first.atMs),
      say: `Not sure when each repetition of ${titleOf(watched)} is over: to about ${lengthText(Math.round(usualMs / 100) * 100)}. Tap along where the counter should be exact.`,
      why: 'Nothing is seen to move for a while before the next one begins; the counter moves at the beginning of that time.',
      bench: 'assemble',
      remedy: null,
    },
  ];
}

function countFault(watched: WatchedBlock, bouts: readonly CountedBout[]): Found[] {
  const { block } = watched;
  const base = { harm: 'gets lost' as const, blockId: block.id };
  const unsure = bouts.find(({ isSure }) => !isSure);
  if (unsure) {
    const aloud = unsure.aloud === null ? '' : `, ${unsure.aloud} counted aloud`;
    const doubt = unsure.isPlain
      ? 'What is seen is too far from the plan to be believed: one movement may have been taken for two, or two for one.'
      : null;
    return [
      {
        ...base,
        key: `count unsure ${block.id}`,
        atMs: shownAt(watched, unsure.startMs),
        say: `Not sure how often ${titleOf(watched)} is done: ${unsure.planned} planned${aloud}, about ${unsure.done.length} seen. Tap along with it.`,
        why: `${doubt ?? (performersOf(block) > 1 ? 'Several performers are in the picture; one of them is followed.' : 'The body is partly hidden, or moves too little to be counted surely.')} The plan’s own times are shown until you tap.`,
        bench: 'assemble',
        remedy: null,
      },
    ];
  }
  const wrong = bouts.find(({ planned, done }) => planned !== done.length);
  if (!wrong) return timesUnsure(watched, bouts);
  const done = wrong.done.length;
  const alike =
    block.kind === 'reps' &&
    done > 0 &&
    bouts.every((bout) => bout.planned === wrong.planned && bout.done.length === done);
  return [
    {
      ...base,
      key: `count ${block.id}`,
      atMs: shownAt(watched, wrong.startMs),
      say: `${titleOf(watched)}: ${times(wrong.planned)} planned, ${done} done.`,
      why: COUNT_WHY,
      bench: 'film',
      remedy: alike
        ? {
            label: `Plan ${times(done)}`,
            change: changeBlock(
              block.id,
              (draft) => void (draft.kind === 'reps' && (draft.reps = done)),
            ),
          }
        : null,
    },
  ];
}

/** What is counted is what is done. */
export function countsAgree(blocks: readonly WatchedBlock[]): Found[] {
  return blocks.flatMap((watched): Found[] => {
    const { block, bouts } = watched;
    return bouts && !isTapped(block) ? countFault(watched, bouts) : [];
  });
}

/** Repetitions that went less far than the others: a hint to look, no verdict. */
export function movesWhole(blocks: readonly WatchedBlock[]): Found[] {
  return blocks.flatMap((watched): Found[] => {
    const short = (watched.bouts ?? []).flatMap(shortOf);
    const [first] = short;
    if (!first) return [];
    return [
      {
        key: `short ${watched.block.id}`,
        harm: 'gets lost',
        blockId: watched.block.id,
        atMs: shownAt(watched, first.topMs),
        say: `${short.length} of the repetitions in ${titleOf(watched)} ${short.length === 1 ? 'goes' : 'go'} less far than the others: ${short.map(({ size }) => `${Math.round(size * 100)} %`).join(', ')} of the usual way.`,
        why: 'A hint to look, no verdict: children copy what is shown (common practice).',
        bench: 'assemble',
        remedy: null,
      },
    ];
  });
}

/** The part of the sure repetitions that must be seen on the other side. */
const OTHER_SIDE = 0.7;

/** The side that is said is the side that moves. */
export function sidesAsSeen(blocks: readonly WatchedBlock[]): Found[] {
  return blocks.flatMap((watched): Found[] => {
    const { block } = watched;
    if (block.facing.performer !== 'camera') return [];
    const wrong = (watched.bouts ?? []).find(({ side, done }) => {
      const known = done.filter((one) => one.side !== null && one.confidence >= SURE_REPETITION);
      return (
        side !== null &&
        known.length > 1 &&
        known.filter((one) => one.side !== side).length > OTHER_SIDE * known.length
      );
    });
    if (!wrong?.side) return [];
    const swaps = block.kind === 'reps' && block.sides !== 'both';
    return [
      {
        key: `side seen ${block.id}`,
        harm: 'gets lost',
        blockId: block.id,
        atMs: shownAt(watched, wrong.startMs),
        say: `${titleOf(watched)} says the ${wrong.side} side, and the ${otherSide(wrong.side)} side is seen to move.`,
        why: 'Sides are the performer’s own, as they face the camera. Children follow what they see.',
        bench: 'plan',
        remedy: swaps
          ? {
              label: `Begin with the ${otherSide(block.startSide)}`,
              change: changeBlock(
                block.id,
                (draft) =>
                  void ('startSide' in draft && (draft.startSide = otherSide(draft.startSide))),
              ),
            }
          : null,
      },
    ];
  });
}

/** Beyond the edge for less than this is not noticed. */
const OUT_MS = 500;

/** The performer is in the picture while something is shown. */
export function performerInPicture(blocks: readonly WatchedBlock[]): Found[] {
  return blocks.flatMap((watched): Found[] => {
    const moved = isMoved(watched.block);
    const out = watched.seen.outOfFrame.filter(({ isGone }) => moved || isGone);
    const shown = shownStretches(watched, out).filter(
      ({ startMs, endMs }) => endMs - startMs >= OUT_MS,
    );
    const [first] = shown;
    if (!first) return [];
    const edges = [...new Set(out.flatMap((stretch) => stretch.edges))];
    const gone = out.some(({ isGone }) => isGone);
    return [
      {
        key: `out ${watched.block.id}`,
        harm: 'cannot see it',
        blockId: watched.block.id,
        atMs: shownAt(watched, first.startMs),
        say: `In ${titleOf(watched)} ${gone ? 'the performer leaves the picture' : 'part of the performer is cut off'} (${edges.join(', ')}) for ${lengthText(totalLength(shown))}${shown.length > 1 ? `, ${shown.length} times` : ''}.`,
        why: 'What is outside the picture cannot be copied. Film the block again from further away, or leave the stretch out.',
        bench: 'film',
        remedy: null,
      },
    ];
  });
}

/**
 * A performer smaller than this part of the picture's height cannot be made out on a phone (common
 * practice).
 */
const SMALLEST = 0.3;

export function performerLargeEnough(blocks: readonly WatchedBlock[]): Found[] {
  return blocks.flatMap((watched): Found[] => {
    const { bodyHeight } = watched.seen;
    if (bodyHeight === null || bodyHeight >= SMALLEST || !isMoved(watched.block)) return [];
    return [
      {
        key: `small ${watched.block.id}`,
        harm: 'cannot see it',
        blockId: watched.block.id,
        atMs: watched.placed.startMs,
        say: `The performer in ${titleOf(watched)} is ${Math.round(bodyHeight * 100)} % of the picture’s height; ${SMALLEST * 100} % is the least.`,
        why: 'On a phone across the room less cannot be made out (common practice). Move closer, or fill more of the frame.',
        bench: 'assemble',
        remedy: null,
      },
    ];
  });
}

const FAULTS: Record<PictureFault, { say: string; why: string; harm: Harm }> = {
  black: { say: 'is black', why: 'Nothing can be seen.', harm: 'cannot see it' },
  'too dark': {
    say: 'is too dark',
    why: 'Limbs cannot be told from the background.',
    harm: 'cannot see it',
  },
  'too bright': {
    say: 'is too bright',
    why: 'Skin and shirt lose their shape.',
    harm: 'cannot see it',
  },
  'light from behind': {
    say: 'has its light behind the performer',
    why: 'The body becomes a shadow; stand so that the window is behind the camera (common practice).',
    harm: 'cannot see it',
  },
  shaken: {
    say: 'is shaken',
    why: 'A picture that moves makes some children feel sick, and nothing can be measured on it.',
    harm: 'cannot see it',
  },
  'out of focus': {
    say: 'is out of focus',
    why: 'The camera was hunting for its focus; lock it before filming.',
    harm: 'cannot see it',
  },
  frozen: {
    say: 'stands still though the clock runs',
    why: 'The recording froze; children wait for it to go on.',
    harm: 'gets lost',
  },
};
const FAULT_MS = 1_000;

/** The picture is light, steady and sharp. */
export function pictureGood(blocks: readonly WatchedBlock[]): Found[] {
  return blocks.flatMap((watched): Found[] =>
    (Object.keys(FAULTS) as PictureFault[]).flatMap((fault): Found[] => {
      const shown = shownStretches(
        watched,
        watched.seen.faults.filter((one) => one.fault === fault),
      );
      const [first] = shown;
      if (!first || totalLength(shown) < FAULT_MS) return [];
      const { say, why, harm } = FAULTS[fault];
      return [
        {
          key: `${fault} ${watched.block.id}`,
          harm,
          blockId: watched.block.id,
          atMs: shownAt(watched, first.startMs),
          say: `The picture of ${titleOf(watched)} ${say} for ${lengthText(totalLength(shown))}.`,
          why,
          bench: 'film',
          remedy: null,
        },
      ];
    }),
  );
}

/** Nothing flashes more than three times a second. */
export function nothingFlashes(blocks: readonly WatchedBlock[]): Found[] {
  return blocks.flatMap((watched): Found[] => {
    const [first] = shownStretches(watched, watched.facts.watched.flashes);
    if (!first) return [];
    return [
      {
        key: `flashes ${watched.block.id}`,
        harm: 'gets hurt',
        blockId: watched.block.id,
        atMs: shownAt(watched, first.startMs),
        say: `The picture of ${titleOf(watched)} flashes more than three times within a second.`,
        why: 'WCAG 2.2, 2.3.1: such flashes can bring on a seizure. Leave the stretch out or film it in steady light.',
        bench: 'assemble',
        remedy: null,
      },
    ];
  });
}

/** Still for less than this is a breath. */
const STILL_MS = 2_500;
/** Holds may be steady a little less long than planned. */
const STEADY = 0.7;

/** Who works to the clock works as long as the clock runs, and holds are held. */
export function workFilled(blocks: readonly WatchedBlock[]): Found[] {
  return blocks.flatMap((watched): Found[] => {
    const { spans, seen, block } = watched;
    if (!seen.isSeen) return [];
    const still = shownStretches(watched, seen.still);
    const works: TimeSpan[] = spans.filter(
      ({ kind, movement }) =>
        kind === 'work' &&
        movement !== undefined &&
        movement !== 'other' &&
        movement !== 'one-leg-balance',
    );
    const idle = intersect(still, works).filter(
      ({ startMs, endMs }) => endMs - startMs >= STILL_MS,
    );
    const holds: TimeSpan[] = spans.filter(({ kind }) => kind === 'hold');
    const steady = totalLength(intersect(still, holds));
    const found: Found[] = [];
    if (idle[0])
      found.push({
        key: `idle ${block.id}`,
        harm: 'gets lost',
        blockId: block.id,
        atMs: shownAt(watched, idle[0].startMs),
        say: `In ${titleOf(watched)} the clock runs for ${lengthText(totalLength(works))} of work, and the performer moves for ${lengthText(totalLength(works) - totalLength(idle))} of it.`,
        why: 'Children keep on as long as they see it done (common practice).',
        bench: 'film',
        remedy: null,
      });
    if (holds.length > 0 && steady < STEADY * totalLength(holds))
      found.push({
        key: `unsteady ${block.id}`,
        harm: 'gets lost',
        blockId: block.id,
        atMs: shownAt(watched, holds[0]?.startMs ?? 0),
        say: `${titleOf(watched)} is to be held for ${lengthText(totalLength(holds))}; the performer is still for ${lengthText(steady)} of it.`,
        why: 'A hint to look, no verdict: swaying is part of a balance.',
        bench: 'assemble',
        remedy: null,
      });
    return found;
  });
}

/** Dead time before and after is noticed from here. */
const DEAD_MS = 1_500;
/** A little air is kept before the first word or movement. */
const AIR_MS = 400;

/** A talk begins with its first word or movement and ends with its last. */
export function noDeadTime(blocks: readonly WatchedBlock[], makeId: () => string): Found[] {
  return blocks.flatMap((watched): Found[] => {
    const { block, seen, alignment, bodyMs } = watched;
    if (block.kind !== 'talk' || block.fixedMs !== null || !seen.active) return [];
    const startsAt = alignment.toBlock(seen.active.startMs);
    const endsAt = alignment.toBlock(seen.active.endMs);
    const left = block.edits.filter((edit) => edit.kind === 'leave-out');
    const isLeftOut = (ms: number) => left.some(({ fromMs, toMs }) => fromMs <= ms && ms < toMs);
    const found: Found[] = [];
    if (startsAt >= DEAD_MS && !isLeftOut(startsAt / 2)) {
      const toMs = Math.round(startsAt - AIR_MS);
      found.push({
        key: `dead head ${block.id}`,
        harm: 'runs out of time',
        blockId: block.id,
        atMs: watched.placed.startMs,
        say: `${titleOf(watched)} begins with ${lengthText(startsAt)} in which nothing is said or done.`,
        why: 'The first seconds decide whether a child stays (common practice).',
        bench: 'assemble',
        remedy: {
          label: 'Leave it out',
          change: changeBlock(
            block.id,
            (draft) => void draft.edits.push({ id: makeId(), kind: 'leave-out', fromMs: 0, toMs }),
          ),
        },
      });
    }
    if (bodyMs - endsAt >= DEAD_MS && !isLeftOut((bodyMs + endsAt) / 2)) {
      const fromMs = Math.round(endsAt + AIR_MS);
      found.push({
        key: `dead tail ${block.id}`,
        harm: 'runs out of time',
        blockId: block.id,
        atMs: shownAt(watched, endsAt),
        say: `${titleOf(watched)} ends with ${lengthText(bodyMs - endsAt)} in which nothing is said or done.`,
        why: 'The walk to the camera’s button belongs to no lesson (common practice).',
        bench: 'assemble',
        remedy: {
          label: 'Leave it out',
          change: changeBlock(
            block.id,
            (draft) =>
              void draft.edits.push({
                id: makeId(),
                kind: 'leave-out',
                fromMs,
                toMs: Math.round(bodyMs),
              }),
          ),
        },
      });
    }
    return found;
  });
}
