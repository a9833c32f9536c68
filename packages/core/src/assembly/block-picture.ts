import { performerInFrame, shotsOf } from '../framing/index.ts';
import { allKit, exerciseTitles, kitText, type Block, type Lesson } from '../lesson/index.ts';
import type { Span } from '../schedule/index.ts';
import { firstFrameFrom, instantOfFrame } from '../time/index.ts';
import type { Picture } from './pictures.ts';
import { alignedTake } from './take-alignment.ts';
import type { CardText, Region, TakeFacts } from './types.ts';

/**
 * A talk's footage shorter than this is a slip of the start mark; the planned length stands then.
 */
const TALK_MIN_MS = 1_000;

/** A question without footage is a card that shows the answer only when its time comes. */
export function pictureOf(
  block: Block,
  spans: readonly Span[],
  takes: ReadonlyMap<string, TakeFacts>,
  language: string,
): Picture {
  const take = block.footage && takes.get(block.footage.takeId);
  if (block.footage && take && block.kind !== 'card') {
    const aligned = alignedTake(block.footage, take);
    // A talk that lies by its marks is over at its end mark.
    const endMs =
      block.kind === 'talk' && block.footage.startsAtMs === null ? take.marked?.endMs : null;
    const takeFrames = endMs ? Math.min(take.frames, firstFrameFrom(endMs)) : take.frames;
    if (firstFrameFrom(aligned.alignment.startMs) < takeFrames)
      return { kind: 'take', aligned: { ...aligned, takeFrames } };
  }
  const card = cardOf(block, language);
  const answer =
    block.kind === 'question' ? spans.find((span) => span.kind === 'answer') : undefined;
  const cards = [{ fromMs: 0, card }];
  if (block.kind === 'question' && answer)
    cards.push({ fromMs: answer.startMs, card: { heading: card.heading, lines: [block.answer] } });
  return { kind: 'cards', cards };
}

export function bodyLength(block: Block, picture: Picture, plannedMs: number): number {
  if (block.kind !== 'talk' || picture.kind !== 'take' || block.fixedMs !== null) return plannedMs;
  const { takeFrames, alignment } = picture.aligned;
  const frames = takeFrames - firstFrameFrom(alignment.startMs);
  const footageMs = Math.floor(instantOfFrame(frames) / alignment.rate);
  return footageMs >= TALK_MIN_MS ? footageMs : plannedMs;
}

function cardOf(block: Block, language: string): CardText {
  if (block.kind === 'card') return { heading: block.title, lines: block.lines };
  if (block.kind === 'question') return { heading: block.question || block.title, lines: [] };
  return {
    heading: block.title,
    lines: [
      ...exerciseTitles(block, language),
      ...allKit(block).map((item) => kitText(item, language)),
    ],
  };
}

/** Where a card has its heading and first lines: nothing is to lie over them. */
export const CARD_WORDS: Region = { x: 75, y: 370, width: 520, height: 330 };

export function performerOf(
  block: Block,
  filming: Lesson['filming'],
  mirrored: boolean,
): Region | null {
  const [shot] = shotsOf(block);
  const region = shot ? performerInFrame(block, shot, filming) : null;
  return region && mirrored ? { ...region, x: 1_000 - region.x - region.width } : region;
}
