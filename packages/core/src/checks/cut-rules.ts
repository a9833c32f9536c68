import {
  alignTake,
  dropText,
  type Assembly,
  type PlacedBlock,
  type Region,
  type TakeFacts,
} from '../assembly/index.ts';
import { blocksOf, findBlock, LIMITS, overlaySlots, type Lesson } from '../lesson/index.ts';
import {
  arcMinutes,
  commonArea,
  fitCaution,
  fitCue,
  inUnits,
  LEAST_ARCMIN,
  MAIN_TEXT,
  placesOf,
  REFERENCE,
  SAFE_AREA,
  seenFromMm,
} from '../overlay/index.ts';
import { bodyBox } from '../signal/index.ts';
import {
  countWords,
  readerAge,
  readingWpm,
  YOUNGEST_READER,
  wordsPerMinute,
} from '../schedule/index.ts';
import {
  beginningIn,
  instantOfFrame,
  intersect,
  overlaps,
  spanLength,
  totalLength,
  type TimeSpan,
} from '../time/index.ts';
import { COMMON, type Hit } from './finding.ts';
import type { Rule, ToCheck } from './rule.ts';
import { copiedIn } from './moment-rules.ts';
import { showsTake } from './watched-blocks.ts';

/** Blocks that are moved or spoken and yet are only a card. */
const footageThere = ({ lesson, takes }: ToCheck): Hit[] =>
  blocksOf(lesson)
    .filter(
      ({ kind, footage }) =>
        kind !== 'card' && kind !== 'question' && !(footage && takes.has(footage.takeId)),
    )
    .map(({ id }) => ({ place: [id], blockId: id }));

/** A still picture of less than this is not noticed. */
const STILL_MS = 500;

/** Where a picture was put in that is to stand still. */
const stillsOf = ({ blocks }: Assembly): TimeSpan[] =>
  blocks.flatMap(({ timeMap: { startMs, runs } }) =>
    runs.flatMap((run) =>
      run.kind === 'extra' && (run.edit.kind === 'freeze' || run.edit.kind === 'picture')
        ? [{ startMs: startMs + run.atMs, endMs: startMs + run.atMs + run.lengthMs }]
        : [],
    ),
  );

/** Blocks whose take is over before they begin: a card stands there. */
const overBefore = ({ lesson, cut, takes }: ToCheck): PlacedBlock[] =>
  cut.blocks.filter((placed) => {
    const block = findBlock(lesson, placed.blockId);
    const hasTake = block?.footage && takes.has(block.footage.takeId) && block.kind !== 'card';
    return hasTake && !showsTake(cut, placed);
  });

/** Clocks that run longer than the footage under them. */
function footageLongEnough(all: ToCheck): Hit[] {
  const { cut } = all;
  const still = new Map<string, { ms: number; atMs: number }>();
  for (const placed of overBefore(all))
    still.set(placed.blockId, { ms: spanLength(placed), atMs: placed.startMs });
  const meant = stillsOf(cut);
  for (const segment of cut.segments) {
    const { blockId, source, startMs, endMs } = segment;
    // A take of one frame is a picture.
    if (source.kind !== 'take' || source.takeFrames <= 1) continue;
    if (meant.some((span) => overlaps(span, segment))) continue;
    const shownMs = instantOfFrame(Math.max(0, source.takeFrames - source.inFrame) / source.speed);
    const missingMs = endMs - startMs - shownMs;
    const known = still.get(blockId);
    if (missingMs > STILL_MS)
      still.set(blockId, {
        ms: (known?.ms ?? 0) + missingMs,
        atMs: known?.atMs ?? startMs + shownMs,
      });
  }
  return [...still].map(([blockId, { ms, atMs }]) => ({
    place: [blockId],
    blockId,
    atMs,
    figures: { stillMs: ms },
  }));
}

/** The block that is on at a moment of the video; null between blocks. */
const blockIdAt = ({ blocks }: Assembly, atMs: number): string | null =>
  blocks.find(({ startMs, endMs }) => startMs <= atMs && atMs < endMs)?.blockId ?? null;

/** Slots with words that are followed while moving; the board is read while nothing is done. */
const FOLLOWED = overlaySlots.filter((slot) => slot !== 'board');
/** Sizes are set in steps of this, in percent. */
const SIZE_STEP = 5;

/** Words that are followed while moving, large enough from where students stand. */
function wordsLargeEnough({ cut }: ToCheck): Hit[] {
  const { profile, slots } = cut.look;
  const small = Math.min(...FOLLOWED.map((slot) => slots[slot].size));
  const seen = arcMinutes((MAIN_TEXT * small) / 100, profile);
  if (seen >= LEAST_ARCMIN) return [];
  const needed =
    Math.ceil((100 * LEAST_ARCMIN) / arcMinutes(MAIN_TEXT, profile) / SIZE_STEP) * SIZE_STEP;
  const largestSize = LIMITS.slotSize.max;
  const isInReach = needed <= largestSize;
  const enlarge = (draft: Lesson) =>
    FOLLOWED.forEach((slot) => {
      const look = draft.finish.look.slots[slot];
      look.size = Math.max(needed, look.size);
    });
  const nearMm = seenFromMm((MAIN_TEXT * largestSize) / 100, profile, LEAST_ARCMIN);
  return [
    {
      place: [],
      blockId: null,
      figures: {
        seen: Math.round(seen),
        screen: profile,
        least: LEAST_ARCMIN,
        nearCm: isInReach ? 0 : Math.floor(nearMm / 50) * 5,
        largestSize,
        needed,
      },
      remedy: isInReach ? { change: enlarge } : null,
    },
  ];
}

/** Of several hits in one place only the first. */
const onceEach = (hits: readonly Hit[]): Hit[] =>
  [...new Map([...hits].reverse().map((hit) => [hit.place.join(' '), hit])).values()].reverse();

/** Cues and cautions short enough to be written large enough in their place. */
function wordsFitTheirPlace({ cut, measure }: ToCheck): Hit[] {
  const { profile, slots, languages } = cut.look;
  const fits = { cue: fitCue, caution: fitCaution };
  const hits = (['cue', 'caution'] as const).flatMap((slot) => {
    const whole = arcMinutes((MAIN_TEXT * slots[slot].size) / 100, profile);
    // What is too small at any length is told of all of them at once.
    if (whole < LEAST_ARCMIN) return [];
    return cut.lanes[slot].flatMap(({ text, startMs }): Hit[] => {
      const { size, lines } = fits[slot](text, languages === 'both', measure);
      const seen = arcMinutes((size * slots[slot].size) / 100, profile);
      if (seen >= LEAST_ARCMIN) return [];
      const blockId = blockIdAt(cut, startMs);
      const isCut = lines.at(-1)?.endsWith('…') === true && !text.trimEnd().endsWith('…');
      return [
        {
          place: [blockId ?? '', text],
          blockId,
          atMs: startMs,
          figures: {
            text,
            seen: Math.round(seen),
            screen: profile,
            isCut: isCut ? 'yes' : 'no',
            least: LEAST_ARCMIN,
          },
          bench: slot === 'cue' ? 'script' : 'plan',
        },
      ];
    });
  });
  return onceEach(hits);
}

/** Time to find a text with one's eyes before reading it. */
const FIND_MS = 500;

/** Cues long enough on screen for the youngest of the audience. */
function cuesLongEnough({ lesson, cut }: ToCheck): Hit[] {
  const { ageFrom } = lesson.audience;
  const wpm = readingWpm(ageFrom);
  const hits = cut.lanes.cue.flatMap((cue): Hit[] => {
    const neededMs = FIND_MS + (countWords(cue.text) * 60_000) / wpm;
    // A command is called out and not to be read.
    if (cue.moment === 'command' || spanLength(cue) >= neededMs) return [];
    const blockId = blockIdAt(cut, cue.startMs);
    return [
      {
        place: [blockId ?? '', cue.text],
        blockId,
        atMs: cue.startMs,
        figures: {
          text: cue.text,
          shownMs: spanLength(cue),
          age: readerAge(ageFrom),
          neededMs,
          isTooYoung: ageFrom < YOUNGEST_READER ? 'yes' : 'no',
        },
      },
    ];
  });
  return onceEach(hits);
}

/**
 * The part of the performer that may be covered while something is to be copied, and how long more
 * of it may be.
 */
const COVERED = 0.12;
const COVERED_MS = 1_000;

/**
 * What is pointed at lies where every screen shows it; everything else on screen is kept there by
 * itself.
 */
function insideSafeArea({ cut }: ToCheck): Hit[] {
  return cut.blocks.flatMap((block): Hit[] => {
    const outside = cut.lanes.pointer.flatMap((pointer) => {
      if (!overlaps(pointer, block)) return [];
      const [x, y] = [
        (pointer.x * REFERENCE.width) / 1_000,
        (pointer.y * REFERENCE.height) / 1_000,
      ];
      const over = Math.max(
        SAFE_AREA.x - x,
        x - SAFE_AREA.x - SAFE_AREA.width,
        SAFE_AREA.y - y,
        y - SAFE_AREA.y - SAFE_AREA.height,
      );
      return over > 0 ? [{ pointer, over }] : [];
    });
    const [worst] = outside.sort((a, b) => b.over - a.over);
    if (!worst) return [];
    const { pointer, over } = worst;
    return [
      {
        place: [block.blockId],
        blockId: block.blockId,
        atMs: Math.max(pointer.startMs, block.startMs),
        figures: {
          text: pointer.text === '' ? 'none' : pointer.text,
          over: Math.max(1, Math.round((over * 100) / REFERENCE.height)),
        },
      },
    ];
  });
}

/**
 * Where the performer is seen most of the time, by what was watched; null when nobody has looked.
 */
function seenRegion(
  lesson: Lesson,
  takes: ReadonlyMap<string, TakeFacts>,
  { blockId, timeMap }: PlacedBlock,
): Region | null {
  const block = findBlock(lesson, blockId);
  const facts = block?.footage ? takes.get(block.footage.takeId) : undefined;
  if (
    !block?.footage ||
    !facts?.watched ||
    block.edits.some(({ kind }) => kind === 'closer' || kind === 'turn')
  )
    return null;
  const alignment = alignTake(block.footage, facts);
  const shown = alignment.spanToTake({ startMs: 0, endMs: timeMap.lengthMs });
  const box = bodyBox(facts.watched, shown);
  if (!box) return null;
  const region = {
    x: box.left * 1_000,
    y: box.top * 1_000,
    width: (box.right - box.left) * 1_000,
    height: (box.bottom - box.top) * 1_000,
  };
  return lesson.settings.sides === 'mirrored'
    ? { ...region, x: 1_000 - region.x - region.width }
    : region;
}

/** Nothing stands before the performer for long. */
function performerFree({ lesson, cut, schedule, takes }: ToCheck): Hit[] {
  const places = placesOf(cut);
  return cut.blocks.flatMap((block: PlacedBlock, i): Hit[] => {
    const seen = seenRegion(lesson, takes, block);
    const region = seen ?? block.performer;
    const performer = region && showsTake(cut, block) ? inUnits(region) : null;
    if (!performer) return [];
    const copied = copiedIn(block, schedule);
    return overlaySlots.flatMap((slot): Hit[] => {
      const place = places[i]?.[slot];
      const inBlock = cut.lanes[slot].filter((overlay) => overlaps(overlay, block));
      const used =
        totalLength(intersect(inBlock, copied)) >= COVERED_MS
          ? inBlock.find((overlay) => intersect([overlay], copied).length > 0)
          : undefined;
      const part =
        place && used ? commonArea(place, performer) / (performer.width * performer.height) : 0;
      if (part <= COVERED || !used) return [];
      return [
        {
          place: [block.blockId, slot],
          blockId: block.blockId,
          atMs: Math.max(used.startMs, block.startMs),
          figures: { slot, part: Math.round(part * 100), isSeen: seen ? 'yes' : 'no' },
          seenAt: [slot],
        },
      ];
    });
  });
}

/** The faster end of what is usual: BBC subtitle guidelines, 160 to 180 (from memory). */
const MOST_CAPTION_WPM = 180;

/** Captions are there where somebody speaks. */
const captionsThere = ({ lesson, cut }: ToCheck): Hit[] =>
  cut.blocks.flatMap((placed): Hit[] => {
    const { blockId, startMs } = placed;
    const isSpoken = cut.segments.some(
      (segment) => segment.blockId === blockId && segment.sound !== null,
    );
    return findBlock(lesson, blockId)?.kind === 'talk' &&
      isSpoken &&
      beginningIn(cut.captions, placed).length === 0
      ? [{ place: [blockId], blockId, atMs: startMs }]
      : [];
  });

/** Captions no faster than can be read. */
const captionsSlow = ({ cut }: ToCheck): Hit[] =>
  cut.blocks.flatMap((placed): Hit[] => {
    const { blockId, startMs } = placed;
    const shown = beginningIn(cut.captions, placed);
    const text = shown.flatMap(({ lines }) => lines).join(' ');
    const wpm = wordsPerMinute(text, totalLength(shown));
    if (wpm <= MOST_CAPTION_WPM) return [];
    const figures = { wpm: Math.round(wpm), most: MOST_CAPTION_WPM };
    return [{ place: [blockId], blockId, atMs: startMs, figures }];
  });

/** Changes by hand that have no place any more. */
const changesKept = ({ cut }: ToCheck): Hit[] =>
  cut.dropped.map(({ blockId, edit, why }) => ({
    place: [edit.id],
    blockId,
    figures: { reason: dropText(why) },
    remedy: {
      change: (draft: Lesson) =>
        void blocksOf(draft).forEach(
          (block) => (block.edits = block.edits.filter(({ id }) => id !== edit.id)),
        ),
    },
  }));

const HEARD = 'cannot hear it or read along';
export const cutRules: readonly Rule[] = [
  {
    id: 'footage',
    harm: 'gets lost',
    bench: 'film',
    source: COMMON,
    seenAt: ['picture'],
    onceFilmed: true,
    run: footageThere,
  },
  {
    id: 'still',
    harm: 'gets lost',
    bench: 'film',
    source: null,
    seenAt: ['picture'],
    run: footageLongEnough,
  },
  {
    id: 'small-words',
    harm: 'cannot see it',
    bench: 'assemble',
    source: COMMON,
    seenAt: FOLLOWED,
    onceFilmed: true,
    run: wordsLargeEnough,
  },
  {
    id: 'long-words',
    harm: 'cannot see it',
    bench: 'script',
    source: COMMON,
    seenAt: ['cue', 'caution'],
    run: wordsFitTheirPlace,
  },
  {
    id: 'short-cue',
    harm: 'cannot see it',
    bench: 'assemble',
    source: COMMON,
    seenAt: ['cue'],
    run: cuesLongEnough,
  },
  { id: 'covers', harm: 'cannot see it', bench: 'assemble', source: null, run: performerFree },
  {
    id: 'safe',
    harm: 'cannot see it',
    bench: 'assemble',
    source: 'EBU R 95',
    seenAt: ['pointer'],
    run: insideSafeArea,
  },
  {
    id: 'captions',
    harm: HEARD,
    bench: 'script',
    source: 'WCAG 2.2, 1.2.2',
    seenAt: ['caption'],
    run: captionsThere,
  },
  {
    id: 'fast-captions',
    harm: HEARD,
    bench: 'script',
    source: COMMON,
    seenAt: ['caption'],
    run: captionsSlow,
  },
  { id: 'dropped', harm: 'gets lost', bench: 'assemble', source: null, run: changesKept },
];
