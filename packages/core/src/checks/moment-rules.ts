import { toVideo, toBlock, type CueOverlay, type PlacedBlock } from '../assembly/index.ts';
import { changeBlock, exerciseTitles, findBlock, type Block } from '../lesson/index.ts';
import { moveKinds, restKinds, type Schedule, type Span } from '../schedule/index.ts';
import { beginningIn, intersect, spanLength, totalLength, type TimeSpan } from '../time/index.ts';
import { COMMON, type Hit } from './finding.ts';
import type { Rule, ToCheck } from './rule.ts';

/** A number may come this long before or after its movement: nobody taps to the frame. */
const NEAR_MS = 1_200;
/** A cue that stands mostly in something else belongs to it. */
const MOSTLY = 0.5;

interface TimedBlock {
  block: Block;
  placed: PlacedBlock;
  spans: readonly Span[];
}

function timedBlocks({ lesson, schedule, cut }: ToCheck): TimedBlock[] {
  const spans = new Map(schedule.blocks.map((one) => [one.block.id, one.spans]));
  return cut.blocks.flatMap((placed): TimedBlock[] => {
    const block = findBlock(lesson, placed.blockId);
    const spansOfBlock = spans.get(placed.blockId) ?? [];
    return block && spansOfBlock.some(({ kind }) => moveKinds.has(kind))
      ? [{ block, placed, spans: spansOfBlock }]
      : [];
  });
}

/**
 * When, in the video, something is done or shown that is to be copied; the whole of a block that
 * has no such time of its own.
 */
export function copiedIn(placed: PlacedBlock, schedule: Schedule): TimeSpan[] {
  const spans =
    schedule.blocks
      .find(({ block }) => block.id === placed.blockId)
      ?.spans.filter(({ kind }) => moveKinds.has(kind) || kind === 'show') ?? [];
  if (spans.length === 0) return [placed];
  return spans.flatMap((span) =>
    toVideo(placed.timeMap, span).map(({ startMs, endMs }) => ({ startMs, endMs })),
  );
}

/** Where in the block's own time something of the video stands. */
const ownTime = ({ placed }: TimedBlock, { startMs, endMs }: TimeSpan): TimeSpan => ({
  startMs: toBlock(placed.timeMap, startMs),
  endMs: toBlock(placed.timeMap, endMs),
});

const namesOf = (block: Block, language: string): string[] =>
  'exercises' in block || 'moves' in block ? [...new Set(exerciseTitles(block, language))] : [];

/** The one movement of its block a cue names; undefined for none or several. */
function namedIn(text: string, block: Block, language: string): string | undefined {
  const words = ` ${text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, ' ')} `;
  const named = namesOf(block, language).filter((name) =>
    words.includes(
      ` ${name
        .toLowerCase()
        .replace(/[^\p{L}\p{N}]+/gu, ' ')
        .trim()} `,
    ),
  );
  return named.length === 1 ? named[0] : undefined;
}

/** The stretches a cue should stand in; null where it may stand anywhere. */
function homeOf(
  { text, moment }: CueOverlay,
  { block, spans }: TimedBlock,
  language: string,
): { home: Span[]; strange: Span[]; name: string | null } | null {
  const moving = spans.filter(({ kind }) => moveKinds.has(kind));
  const name = namedIn(text, block, language);
  const isNamed = ({ label }: Span) => 'text' in label && label.text === name;
  if (name !== undefined && moving.some(isNamed))
    return {
      home: moving.filter(isNamed),
      strange: moving.filter((span) => !isNamed(span)),
      name,
    };
  if (moment === 'action')
    return {
      home: moving,
      strange: spans.filter(({ kind }) => restKinds.has(kind)),
      name: null,
    };
  return null;
}

/** One by hand goes to where the next stretch of its own begins, as long as it was. */
function putRight(block: Block, text: string, home: readonly Span[]): Hit['remedy'] {
  const byHand = block.edits.find((edit) => edit.kind === 'cue' && edit.text === text);
  if (byHand?.kind !== 'cue') return null;
  const to = home.find(({ endMs }) => endMs > byHand.fromMs) ?? home.at(-1);
  if (!to) return null;
  const { id } = byHand;
  const move = (draft: Block) =>
    draft.edits.forEach(
      (edit) =>
        edit.id === id &&
        edit.kind === 'cue' &&
        Object.assign(edit, {
          fromMs: to.startMs,
          toMs: to.startMs + Math.min(edit.toMs - edit.fromMs, Math.max(1_000, spanLength(to))),
        }),
    );
  return { change: changeBlock(block.id, move) };
}

/** A cue stands while that is done which it is for. */
function cuesWithTheirMove(plan: ToCheck): Hit[] {
  return timedBlocks(plan).flatMap((timed): Hit[] => {
    const { block } = timed;
    for (const cue of beginningIn(plan.cut.lanes.cue, timed.placed)) {
      const at = ownTime(timed, cue);
      const place = homeOf(cue, timed, plan.lesson.settings.language);
      if (!place || at.endMs <= at.startMs) continue;
      const strangeMs = totalLength(intersect([at], place.strange));
      if (strangeMs < MOSTLY * spanLength(at)) continue;
      return [
        {
          place: [block.id, cue.text],
          blockId: block.id,
          atMs: cue.startMs,
          figures: {
            text: cue.text,
            what: place.name === null ? 'movement' : 'name',
            name: place.name ?? '',
            strangeMs,
          },
          remedy: putRight(block, cue.text, place.home),
        },
      ];
    }
    return [];
  });
}

/** The counter goes on while something is done. */
function countsWithTheirMove(plan: ToCheck): Hit[] {
  return timedBlocks(plan).flatMap((timed): Hit[] => {
    const { block, spans, placed } = timed;
    const idle = spans
      .filter(({ kind }) => restKinds.has(kind))
      .map(({ startMs, endMs }) => ({ startMs: startMs + NEAR_MS, endMs: endMs - NEAR_MS }));
    const lost = beginningIn(plan.cut.lanes.counter, placed).filter(
      (counter) =>
        counter.elapsedMs === 0 &&
        intersect(
          [
            {
              startMs: ownTime(timed, counter).startMs,
              endMs: ownTime(timed, counter).startMs + 1,
            },
          ],
          idle,
        ).length > 0,
    );
    const [first] = lost;
    if (!first) return [];
    return [
      {
        place: [block.id],
        blockId: block.id,
        atMs: first.startMs,
        figures: { n: lost.length },
      },
    ];
  });
}

export const momentRules: readonly Rule[] = [
  {
    id: 'cue-move',
    harm: 'gets lost',
    bench: 'assemble',
    source: COMMON,
    seenAt: ['cue'],
    run: cuesWithTheirMove,
  },
  {
    id: 'count-move',
    harm: 'gets lost',
    bench: 'assemble',
    source: COMMON,
    seenAt: ['counter'],
    run: countsWithTheirMove,
  },
];
