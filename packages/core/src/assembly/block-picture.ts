import { performerInFrame, shotsOf } from '../framing/index.ts';
import {
  allKit,
  choiceLetter,
  exerciseTitles,
  kitText,
  questionOf,
  type Block,
  type BlockOf,
  type Lesson,
} from '../lesson/index.ts';
import type { Span } from '../schedule/index.ts';
import { firstFrameFrom, instantOfFrame } from '../time/index.ts';
import { lessonWord } from '../words/index.ts';
import type { Cards, Picture } from './pictures.ts';
import { alignedTake } from './take-alignment.ts';
import type { CardChoice, CardText, Region, TakeFacts } from './types.ts';

/**
 * A talk's footage shorter than this is a slip of the start mark; the planned length stands then.
 */
const TALK_MIN_MS = 1_000;

/**
 * What a block shows: its take, else a card. A question's card tells the answer only when its time
 * comes; its choices are shown as a card from the thinking time on, also where there is a take.
 */
export function pictureOf(
  block: Block,
  spans: readonly Span[],
  takes: ReadonlyMap<string, TakeFacts>,
  language: string,
): Picture {
  const cards = block.kind === 'question' ? questionCards(block, spans, language) : [];
  const take = block.footage && takes.get(block.footage.takeId);
  if (block.footage && take && block.kind !== 'card') {
    const aligned = alignedTake(block.footage, take);
    // A talk that lies by its marks is over at its end mark.
    const endMs =
      block.kind === 'talk' && block.footage.startsAtMs === null ? take.marked?.endMs : null;
    const takeFrames = endMs ? Math.min(take.frames, firstFrameFrom(endMs)) : take.frames;
    const choices = cards.filter(({ fromMs, card }) => fromMs > 0 && card.choices);
    if (firstFrameFrom(aligned.alignment.startMs) < takeFrames)
      return { kind: 'take', aligned: { ...aligned, takeFrames }, cards: choices };
  }
  return {
    kind: 'cards',
    cards: cards.length > 0 ? cards : [{ fromMs: 0, card: cardOf(block, language) }],
  };
}

/** The question, its choices from the thinking time on, and the answer when its time comes. */
function questionCards(
  block: BlockOf<'question'>,
  spans: readonly Span[],
  language: string,
): Cards {
  const heading = questionOf(block);
  const startOf = (kind: Span['kind']) => spans.find((span) => span.kind === kind)?.startMs;
  const [thinkMs, answerMs] = [startOf('think'), startOf('answer')];
  const choices = (isTold: boolean): CardChoice[] | undefined =>
    block.choices?.map(({ text, movement, isRight }, i) => ({
      ...{ letter: choiceLetter(i), text, movement },
      isRight: isTold ? isRight : null,
    }));
  const how = block.answeredBy ? [lessonWord(language, 'question.by-move')] : [];
  const [open, told] = [choices(false), choices(true)];
  const asked: CardText = open ? { heading, lines: how, choices: open } : { heading, lines: [] };
  const answered: CardText = told
    ? { heading, lines: [], choices: told }
    : { heading, lines: [block.answer] };
  return [
    // Without footage the choices stand there from the beginning.
    { fromMs: 0, card: asked },
    ...(thinkMs && open ? [{ fromMs: thinkMs, card: asked }] : []),
    ...(answerMs !== undefined ? [{ fromMs: answerMs, card: answered }] : []),
  ];
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

/** Where a card has its choices. */
export const CARD_CHOICES: Region = { x: 50, y: 400, width: 900, height: 420 };

export function performerOf(
  block: Block,
  filming: Lesson['filming'],
  mirrored: boolean,
): Region | null {
  const [shot] = shotsOf(block);
  const region = shot ? performerInFrame(block, shot, filming) : null;
  return region && mirrored ? { ...region, x: 1_000 - region.x - region.width } : region;
}
