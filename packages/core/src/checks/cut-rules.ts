import {
  alignTake,
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
  type Measure,
  placesOf,
  REFERENCE,
  SAFE_AREA,
} from '../overlay/index.ts';
import { bodyBox } from '../signal/index.ts';
import {
  countWords,
  readerAge,
  readingWpm,
  YOUNGEST_READER,
  wordsPerMinute,
  type Schedule,
} from '../schedule/index.ts';
import {
  beginningIn,
  instantOfFrame,
  intersect,
  lengthText,
  overlaps,
  spanLength,
  totalLength,
} from '../time/index.ts';
import { quoted, type Found } from './finding.ts';
import { copiedIn } from './moment-rules.ts';

export interface CutToCheck {
  lesson: Lesson;
  cut: Assembly;
  schedule: Schedule;
  takes: ReadonlyMap<string, TakeFacts>;
}

const titleIn = (lesson: Lesson, blockId: string) => quoted(findBlock(lesson, blockId));

/** Blocks that are moved or spoken and yet are only a card. */
export function footageThere({ lesson, takes }: CutToCheck): Found[] {
  return blocksOf(lesson).flatMap((block): Found[] => {
    if (
      block.kind === 'card' ||
      block.kind === 'question' ||
      (block.footage && takes.has(block.footage.takeId))
    )
      return [];
    return [
      {
        key: `footage ${block.id}`,
        harm: 'gets lost',
        blockId: block.id,
        atMs: null,
        say: `${quoted(block)} has no finished take and is shown as a card.`,
        why: 'Children copy what they see; a card shows no movement (common practice).',
        bench: 'film',
        remedy: null,
      },
    ];
  });
}

/** A still picture of less than this is not noticed. */
const STILL_MS = 500;

/** Clocks that run longer than the footage under them. */
export function footageLongEnough({ lesson, cut }: CutToCheck): Found[] {
  const still = new Map<string, { ms: number; atMs: number }>();
  for (const { blockId, source, startMs, endMs } of cut.segments) {
    // One frame is a picture that is to stand still.
    if (source.kind !== 'take' || source.takeFrames - source.inFrame <= 1) continue;
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
    key: `still ${blockId}`,
    harm: 'gets lost',
    blockId,
    atMs,
    say: `${titleIn(lesson, blockId)} runs on for ${lengthText(ms)} after its footage has ended; the last picture stands still.`,
    why: 'A clock that counts over a frozen picture looks broken.',
    bench: 'film',
    remedy: null,
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
export function wordsLargeEnough({ cut }: Pick<CutToCheck, 'cut'>): Found[] {
  const { profile, slots } = cut.look;
  const small = Math.min(...FOLLOWED.map((slot) => slots[slot].size));
  const seen = arcMinutes((MAIN_TEXT * small) / 100, profile);
  if (seen >= LEAST_ARCMIN) return [];
  const needed =
    Math.ceil((100 * LEAST_ARCMIN) / arcMinutes(MAIN_TEXT, profile) / SIZE_STEP) * SIZE_STEP;
  const isInReach = needed <= LIMITS.slotSize.max;
  return [
    {
      key: 'small words',
      harm: 'cannot see it',
      blockId: null,
      atMs: null,
      say: `Cues, counts and cautions look ${seen.toFixed(0)} minutes of arc high on a ${profile}; ${LEAST_ARCMIN} is the least.${isInReach ? '' : ` Even at ${LIMITS.slotSize.max} % they look ${arcMinutes((MAIN_TEXT * LIMITS.slotSize.max) / 100, profile).toFixed(0)}: ask for a larger screen or a shorter distance.`}`,
      why: 'ISO 9241-303 (from memory).',
      bench: 'assemble',
      remedy: isInReach
        ? {
            label: `Make them ${needed} %`,
            change: (draft: Lesson) =>
              FOLLOWED.forEach(
                (slot) =>
                  (draft.finish.look.slots[slot].size = Math.max(
                    needed,
                    draft.finish.look.slots[slot].size,
                  )),
              ),
          }
        : null,
    },
  ];
}

/** Cues and cautions short enough to be written large enough in their place. */
export function wordsFitTheirPlace({
  cut,
  measure,
}: Pick<CutToCheck, 'cut'> & { measure: Measure }): Found[] {
  const { profile, slots } = cut.look;
  const worst = new Map<string, Found>();
  for (const [slot, fit] of [
    ['cue', fitCue],
    ['caution', fitCaution],
  ] as const) {
    const whole = arcMinutes((MAIN_TEXT * slots[slot].size) / 100, profile);
    for (const { text, startMs } of cut.lanes[slot]) {
      const { size, lines } = fit(text, cut.look.languages === 'both', measure);
      const seen = arcMinutes((size * slots[slot].size) / 100, profile);
      // What is too small at any length is told of all of them at once.
      if (seen >= LEAST_ARCMIN || whole < LEAST_ARCMIN) continue;
      const blockId = blockIdAt(cut, startMs);
      const key = `long words ${blockId ?? ''} ${text}`.slice(0, 200);
      const isCut = lines.at(-1)?.endsWith('…') === true && !text.trimEnd().endsWith('…');
      if (worst.has(key)) continue;
      worst.set(key, {
        key,
        harm: 'cannot see it',
        blockId,
        atMs: startMs,
        say: `“${text}” is too long for its place: it looks ${seen.toFixed(0)} minutes of arc high on a ${profile}${isCut ? ', and its end is left out' : ''}; ${LEAST_ARCMIN} is the least. Say it in fewer words.`,
        why: 'ISO 9241-303 (from memory). Two to five words are read best while moving (common practice).',
        bench: slot === 'cue' ? 'script' : 'plan',
        remedy: null,
      });
    }
  }
  return [...worst.values()];
}

/** Time to find a text with one's eyes before reading it. */
const FIND_MS = 500;

/** Cues long enough on screen for the youngest of the audience. */
export function cuesLongEnough({ lesson, cut }: CutToCheck): Found[] {
  const wpm = readingWpm(lesson.audience.ageFrom);
  const isForNonReaders = lesson.audience.ageFrom < YOUNGEST_READER;
  const worst = new Map<string, Found>();
  for (const { startMs, endMs, text, moment } of cut.lanes.cue) {
    const neededMs = FIND_MS + (countWords(text) * 60_000) / wpm;
    // A command is called out and not to be read.
    if (moment === 'command' || endMs - startMs >= neededMs) continue;
    const blockId = blockIdAt(cut, startMs);
    const key = `short cue ${blockId ?? ''} ${text}`.slice(0, 200);
    if (worst.has(key)) continue;
    worst.set(key, {
      key,
      harm: 'cannot see it',
      blockId,
      atMs: startMs,
      say: `“${text}” is on screen for ${lengthText(endMs - startMs)}; a child of ${readerAge(lesson.audience.ageFrom)} reads it in ${lengthText(neededMs)}${isForNonReaders ? `, younger ones not at all: say it as well` : ''}.`,
      why: 'Oral reading fluency, 50th percentile (Hasbrouck & Tindal 2017, from memory).',
      bench: 'assemble',
      remedy: null,
    });
  }
  return [...worst.values()];
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
export function insideSafeArea({ lesson, cut }: CutToCheck): Found[] {
  return cut.blocks.flatMap((block): Found[] => {
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
        key: `safe ${block.blockId}`,
        harm: 'cannot see it',
        blockId: block.blockId,
        atMs: Math.max(pointer.startMs, block.startMs),
        say: `The arrow ${pointer.text === '' ? '' : `“${pointer.text}” `}in ${titleIn(lesson, block.blockId)} points ${Math.max(1, Math.round((over * 100) / REFERENCE.height))} % of the picture’s height outside the safe area.`,
        why: 'Televisions cut off the edge: EBU R 95, 90 % of width and height for graphics. Point at a moment at which it is further in, or show the picture less close.',
        bench: 'assemble',
        remedy: null,
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
export function performerFree({ lesson, cut, schedule, takes }: CutToCheck): Found[] {
  const places = placesOf(cut);
  return cut.blocks.flatMap((block: PlacedBlock, i): Found[] => {
    const shown = cut.segments.some(
      ({ blockId, source }) => blockId === block.blockId && source.kind === 'take',
    );
    const seen = seenRegion(lesson, takes, block);
    const region = seen ?? block.performer;
    const performer = shown && region ? inUnits(region) : null;
    if (!performer) return [];
    const copied = copiedIn(block, schedule);
    return overlaySlots.flatMap((slot): Found[] => {
      const place = places[i]?.[slot];
      const own = cut.lanes[slot].filter((overlay) => overlaps(overlay, block));
      const used =
        totalLength(intersect(own, copied)) >= COVERED_MS
          ? own.find((overlay) => intersect([overlay], copied).length > 0)
          : undefined;
      const part =
        place && used ? commonArea(place, performer) / (performer.width * performer.height) : 0;
      if (part <= COVERED || !used) return [];
      return [
        {
          key: `covers ${block.blockId} ${slot}`,
          harm: 'cannot see it',
          blockId: block.blockId,
          atMs: Math.max(used.startMs, block.startMs),
          say: `The ${slot} covers ${Math.round(part * 100)} % of where the performer is in ${titleIn(lesson, block.blockId)}.`,
          why: `What is covered cannot be copied. Where the performer is ${seen ? 'was measured in the take' : 'comes from the framing plan'}.`,
          bench: 'assemble',
          remedy: null,
        },
      ];
    });
  });
}

/** BBC subtitle guidelines (from memory): 160 to 180 words a minute. */
const MOST_CAPTION_WPM = 180;

/** Captions there where somebody speaks, and no faster than can be read. */
export function captionsRight({ lesson, cut }: CutToCheck): Found[] {
  const found: Found[] = [];
  for (const { blockId, startMs, endMs } of cut.blocks) {
    const block = findBlock(lesson, blockId);
    const own = beginningIn(cut.captions, { startMs, endMs });
    const isSpoken = cut.segments.some(
      (segment) => segment.blockId === blockId && segment.sound !== null,
    );
    if (block?.kind === 'talk' && isSpoken && own.length === 0)
      found.push({
        key: `captions ${blockId}`,
        harm: 'cannot hear it or read along',
        blockId,
        atMs: startMs,
        say: `${titleIn(lesson, blockId)} is spoken and has no captions.`,
        why: 'WCAG 2.2, 1.2.2. Captions are made from the script.',
        bench: 'script',
        remedy: null,
      });
    const ms = own.reduce((sum, caption) => sum + spanLength(caption), 0);
    const wpm = wordsPerMinute(own.flatMap(({ lines }) => lines).join(' '), ms);
    if (wpm > MOST_CAPTION_WPM)
      found.push({
        key: `fast captions ${blockId}`,
        harm: 'cannot hear it or read along',
        blockId,
        atMs: startMs,
        say: `Captions in ${titleIn(lesson, blockId)} run at ${Math.round(wpm)} words a minute; ${MOST_CAPTION_WPM} is the most.`,
        why: 'BBC subtitle guidelines: 160 to 180 (from memory).',
        bench: 'script',
        remedy: null,
      });
  }
  return found;
}

/** Changes by hand that have no place any more. */
export function changesKept({ lesson, cut }: CutToCheck): Found[] {
  return cut.dropped.map(({ blockId, edit, why }) => ({
    key: `dropped ${edit.id}`,
    harm: 'gets lost',
    blockId,
    atMs: null,
    say: `A change by hand in ${titleIn(lesson, blockId)} could not be kept: ${why}`,
    why: 'The plan or the take was changed after it.',
    bench: 'assemble',
    remedy: {
      label: 'Remove the change',
      change: (draft: Lesson) =>
        void blocksOf(draft).forEach(
          (block) => (block.edits = block.edits.filter(({ id }) => id !== edit.id)),
        ),
    },
  }));
}
