import { floorUse } from '../ledger/index.ts';
import {
  answerText,
  askedText,
  withWay,
  type Block,
  type BlockOf,
  type Edit,
  type Finish,
} from '../lesson/index.ts';
import {
  countWords,
  speechMs,
  type ScheduledBlock,
  type Span,
  type SpanKind,
} from '../schedule/index.ts';
import { pacerEvents, type PacerEvent, type PacerTone } from '../script/index.ts';
import { lengthText, type TimeSpan } from '../time/index.ts';
import { speaking } from '../words/index.ts';
import { boardsOf, type BoardContext } from './boards.ts';
import { countersOfCounted, withHand, workedSides } from './by-hand.ts';
import { captionsFor, captionsOfSaid } from './captions.ts';
import { layOutBlock, toVideo, whyNot, type BlockTimeMap } from './block-time-map.ts';
import { bodyLength, CARD_CHOICES, CARD_WORDS, performerOf, pictureOf } from './block-picture.ts';
import { laid, placeExtras, placeLanes } from './laid.ts';
import { countedBouts, laidSentences, spokenSentences, sureRepetitions } from './measured.ts';
import { cautionsOf, clocksOf, countersOf, cuesOf, sidesOf } from './overlays.ts';
import { Pictures, takeFault, type Picture } from './pictures.ts';
import { pointersAt } from './pointers.ts';
import type { AlignedTake } from './take-alignment.ts';
import type { Assembly, Caption, OverlayLanes, TakeFacts } from './types.ts';

/** A block on its way into the video: what is planned, what is shown, and how it lies there. */
interface Placing {
  cut: Assembly;
  context: BoardContext;
  block: Block;
  spans: readonly Span[];
  edits: readonly Edit[];
  bodyMs: number;
  body: TimeSpan;
  timeMap: BlockTimeMap;
  picture: Picture;
  pictures: Pictures;
  /** What was measured of its take; null where a card is shown. */
  measured: { take: AlignedTake; facts: TakeFacts } | null;
}

/** Places a block after what is in the cut already. */
export function placeBlock(
  cut: Assembly,
  planned: ScheduledBlock,
  takes: ReadonlyMap<string, TakeFacts>,
  context: BoardContext,
): void {
  const placing = beginPlacing(cut, planned, takes, context);
  const { block, edits, timeMap, picture, pictures } = placing;
  const { filming, settings } = context.lesson;
  const mirrored = settings.sides === 'mirrored';
  cut.segments.push(
    ...pictures.segments(timeMap, cut.segments.at(-1), floorUse(withWay(block, context.lesson))),
  );
  const sentences = sentencesOf(placing);
  placeOverlays(placing, sentences?.laid ?? null);
  placeCaptions(placing, sentences?.laid ?? null);
  placeSentences(placing, sentences);
  placePacer(cut, pacerEvents(block, context.lesson), timeMap);
  placeRests(placing);
  const startMs = cut.durationMs;
  const endMs = startMs + timeMap.lengthMs + placePauseSign(placing, takes);
  if (endMs > startMs)
    cut.blocks.push({
      blockId: block.id,
      startMs,
      endMs,
      timeMap,
      performer: hasChoices(block)
        ? CARD_CHOICES
        : picture.kind === 'take'
          ? performerOf(block, filming, mirrored)
          : CARD_WORDS,
      places: edits.flatMap((edit) =>
        edit.kind === 'place' ? [{ slot: edit.slot, x: edit.x, y: edit.y }] : [],
      ),
    });
  cut.durationMs = endMs;
}

function beginPlacing(
  cut: Assembly,
  planned: ScheduledBlock,
  takes: ReadonlyMap<string, TakeFacts>,
  context: BoardContext,
): Placing {
  const { block } = planned;
  const { settings } = context.lesson;
  const sign = planned.spans.find(({ kind }) => kind === 'pause-sign');
  const spans = planned.spans.filter(({ kind }) => kind !== 'pause-sign');
  const picture = pictureOf(block, spans, takes, settings.language);
  const bodyMs = bodyLength(block, picture, sign?.startMs ?? planned.durationMs);
  const edits = block.edits.flatMap((edit) => {
    const why = whyNot(edit, bodyMs) ?? takeFault(edit, takes);
    if (why !== null) cut.dropped.push({ blockId: block.id, edit, why });
    if (why !== null) return [];
    // A stretch ends with the block at the latest.
    return 'fromMs' in edit && edit.toMs > bodyMs ? [{ ...edit, toMs: bodyMs }] : [edit];
  });
  const facts = picture.kind === 'take' ? takes.get(picture.aligned.takeId) : undefined;
  return {
    cut,
    context,
    block,
    spans,
    edits,
    bodyMs,
    body: { startMs: 0, endMs: bodyMs },
    timeMap: layOutBlock(bodyMs, edits, cut.durationMs),
    picture,
    pictures: new Pictures({
      blockId: block.id,
      picture,
      edits,
      mirrored: settings.sides === 'mirrored',
      takes,
    }),
    measured: picture.kind === 'take' && facts ? { take: picture.aligned, facts } : null,
  };
}

type Sentences = {
  found: NonNullable<ReturnType<typeof spokenSentences>>;
  laid: ReturnType<typeof laidSentences>;
};

/** The script's sentences as they were heard, and as they are laid; null where nobody listened. */
function sentencesOf({ block, edits, body, measured }: Placing): Sentences | null {
  if (!measured) return null;
  const { take, facts } = measured;
  const byHand = edits.filter((edit) => edit.kind === 'said');
  const found = spokenSentences(block.script, take.alignment, facts, byHand);
  return found && { found, laid: laidSentences(found, body, countWords) };
}

type Laid = Sentences['laid'] | null;

function placeOverlays(placing: Placing, said: Laid): void {
  const { cut, context, block, spans, edits, bodyMs, body, timeMap, pictures, measured } = placing;
  const { settings, finish } = context.lesson;
  const { language } = settings;
  const say = speaking(language);
  const planned = countersOf(block, spans, say);
  // Counted by hand comes before counted by the program.
  const repetitions =
    edits.findLast((edit) => edit.kind === 'taps')?.taps ??
    (measured &&
      sureRepetitions(countedBouts(block, spans, measured.take.alignment, measured.facts)));
  const counted =
    repetitions &&
    countersOfCounted(repetitions, planned, spans).filter(({ startMs }) => startMs < bodyMs);
  // A card says the question, the answer, and what is needed itself.
  const isTake = placing.picture.kind === 'take';
  const saidAt = ({ from }: { from: number }) =>
    said?.find((sentence) => sentence.from === from)?.startMs ?? null;
  const byPlan: OverlayLanes = {
    pointer: [],
    clock: clocksOf(spans, language),
    counter: counted ?? planned,
    cue: cuesOf(block, spans, body, language, saidAt).filter(
      ({ moment }) => isTake || (moment !== 'answer' && moment !== 'question'),
    ),
    caution: cautionsOf(block, spans, body),
    side: finish.look.sides
      ? sidesOf(
          block,
          spans,
          (ms) => pictures.lookAt(ms).mirrored,
          counted ? workedSides(counted, planned) : { of: [], sides: [] },
        )
      : [],
    board: boardsOf(block, spans, body, isTake ? context : { ...context, newKit: [] }),
  };
  placeLanes(cut.lanes, withHand(byPlan, edits, bodyMs), timeMap);
  for (const edit of edits)
    if (edit.kind === 'point' && measured)
      cut.lanes.pointer.push(
        ...pointersAt(edit, measured.take.alignment, measured.facts, pictures).flatMap((overlay) =>
          laid(overlay, timeMap),
        ),
      );
  placeExtras(cut.lanes, timeMap, pictures, say);
}

const hasChoices = (block: Block) => block.kind === 'question' && block.choices !== undefined;

function questionCaptions(block: BlockOf<'question'>, spans: readonly Span[]): Caption[] {
  const said: Partial<Record<SpanKind, string>> = {
    ask: askedText(block),
    answer: answerText(block),
  };
  return spans.flatMap((span): Caption[] => captionsFor(said[span.kind] ?? '', span));
}

function placeCaptions({ cut, context, block, spans, bodyMs, timeMap }: Placing, said: Laid): void {
  const captions =
    block.kind === 'question'
      ? questionCaptions(block, spans)
      : said
        ? captionsOfSaid(said, bodyMs)
        : captionsFor(block.script, {
            startMs: 0,
            endMs:
              block.kind === 'talk'
                ? bodyMs
                : Math.min(bodyMs, speechMs(block.script, context.lesson.settings.speechWpm)),
          });
  for (const caption of captions) cut.captions.push(...laid(caption, timeMap));
}

function placeSentences({ cut, block, timeMap }: Placing, sentences: Sentences | null): void {
  for (const { text, from, ...span } of sentences?.laid ?? []) {
    const isGuess = sentences?.found.find((one) => one.from === from)?.startMs === null;
    const [piece] = toVideo(timeMap, span);
    if (piece)
      cut.sentences.push({
        blockId: block.id,
        text,
        isGuess,
        startMs: piece.startMs,
        endMs: piece.endMs,
      });
  }
}

/** The video waits at the end of each rest that lasts until the student is ready. */
function placeRests({ cut, block, spans, timeMap }: Placing): void {
  for (const span of spans) {
    if (span.kind !== 'ready') continue;
    const shown = toVideo(timeMap, span).at(-1);
    if (shown)
      cut.pauses.push({
        ...{ blockId: block.id, isRest: true, practiceMs: span.offMs, prompt: '' },
        ...{ startMs: shown.startMs, endMs: shown.endMs },
      });
  }
}

/** The sign to stop after the block, where there is one; gives how long it is shown. */
function placePauseSign(
  { cut, context, block, timeMap }: Placing,
  takes: ReadonlyMap<string, TakeFacts>,
): number {
  if (!block.pauseAfter || block.pauseAfter.signMs <= 0) return 0;
  const { practiceMs, signMs, prompt } = block.pauseAfter;
  const say = speaking(context.lesson.settings.language);
  const card = {
    heading: say('pause.practise'),
    lines: [prompt, lengthText(practiceMs)].filter((line) => line !== ''),
  };
  const sign = new Pictures({
    blockId: block.id,
    picture: { kind: 'cards', cards: [{ fromMs: 0, card }] },
    edits: [],
    mirrored: false,
    takes,
  });
  const startMs = timeMap.startMs + timeMap.lengthMs;
  const shown = { startMs, runs: layOutBlock(signMs, []).runs };
  cut.segments.push(...sign.segments(shown, undefined, null));
  cut.pauses.push({
    ...{ blockId: block.id, isRest: false, practiceMs, prompt },
    ...{ startMs, endMs: startMs + signMs },
  });
  return signMs;
}

/** What each tone of the pacer is heard for. */
const voiceOf: Record<PacerTone, Finish['sound']['heard'][number]> = {
  'count-in': 'clock',
  go: 'clock',
  halfway: 'clock',
  'last-five': 'clock',
  stop: 'clock',
  beat: 'count',
  accent: 'count',
  tick: 'count',
  turn: 'count',
  'change-sides': 'sides',
  call: 'calls',
};

function placePacer(cut: Assembly, events: readonly PacerEvent[], timeMap: BlockTimeMap): void {
  const { pacer, heard } = cut.sound;
  if (pacer === 'left out') return;
  for (const { atMs, tone, say } of events) {
    const [seen] = toVideo(timeMap, { startMs: atMs, endMs: atMs + 1 });
    if (!seen || !heard.includes(voiceOf[tone])) continue;
    if (pacer !== 'tones' && say !== '') cut.spoken.calls.push({ atMs: seen.startMs, say });
    if (pacer !== 'spoken') cut.tones.push({ atMs: seen.startMs, tone });
  }
}
