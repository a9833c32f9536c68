import { performerInFrame, shotsOf } from '../framing/index.ts';
import { floorUse } from '../ledger/index.ts';
import {
  exerciseTitles,
  kitText,
  type Block,
  type BlockOf,
  type Finish,
  type Kit,
  type Lesson,
} from '../lesson/index.ts';
import { pacerEvents, type PacerEvent, type PacerTone } from '../script/index.ts';
import {
  countWords,
  scheduleLesson,
  speechMs,
  type ScheduledBlock,
  type Span,
  type SpanKind,
} from '../schedule/index.ts';
import { firstFrameFrom, instantOfFrame, lengthText } from '../time/index.ts';
import { speaking, type Say } from '../words/index.ts';
import { boardsOf, type BoardContext } from './boards.ts';
import { countersOfTaps, withHand, workedSides } from './by-hand.ts';
import { captionsFor, captionsOfSaid } from './captions.ts';
import { countedBouts, laidSentences, spokenSentences, tapsOf } from './measured.ts';
import { cautionsOf, clocksOf, countersOf, cuesOf, sidesOf } from './overlays.ts';
import { footingOf, onScreen, Pictures, takeFault, type Picture } from './pictures.ts';
import { pointersAt, roomySide } from './pointers.ts';
import { inVideo, reelOf, whyNot, type Reel } from './reel.ts';
import {
  emptyLanes,
  slots,
  type Assembly,
  type Caption,
  type CardText,
  type CueOverlay,
  type Overlay,
  type OverlayLanes,
  type PointerOverlay,
  type Region,
  type TakeFacts,
} from './types.ts';

/**
 * A talk's footage shorter than this is a slip of the start mark; the planned length stands then.
 */
const TALK_MIN_MS = 1_000;

/**
 * The first cut: every block in order with its take, its clocks, counters, cues, cautions and
 * captions. A timed block lasts what the plan says; a talk with footage lasts as long as the
 * footage. A block without a usable take becomes a card, so the lesson can always be watched whole.
 * Changes by hand are made where they have a place; those that have none any more are listed.
 * @param takes the takes whose working copies are ready, by id
 */
export function firstCut(lesson: Lesson, takes: ReadonlyMap<string, TakeFacts>): Assembly {
  const { music } = lesson.finish.sound;
  const cut: Assembly = {
    title: lesson.title,
    durationMs: 0,
    shape: 'wide',
    words: { language: lesson.settings.language, other: otherWords(lesson) },
    look: lesson.finish.look,
    sound: { ...lesson.finish.sound, music: music && takes.has(music.takeId) ? music : null },
    segments: [],
    lanes: emptyLanes(),
    captions: [],
    sentences: [],
    pauses: [],
    chapters: [],
    blocks: [],
    tones: [],
    spoken: { language: lesson.settings.counts.language, calls: [] },
    dropped: [],
  };
  const { sections } = scheduleLesson(lesson);
  const titles = sections.map(({ section }) => section.title);
  const usedKit = new Set<string>();
  for (const [s, section] of sections.entries()) {
    const startMs = cut.durationMs;
    for (const [b, planned] of section.blocks.entries()) {
      const newKit = planned.block.kit.filter(
        (item) => item.name.trim() !== '' && !usedKit.has(kitKey(item)),
      );
      for (const item of newKit) usedKit.add(kitKey(item));
      placeBlock(cut, planned, takes, {
        lesson,
        sections: titles,
        section: s,
        isFirstOfSection: b === 0,
        newKit,
      });
    }
    if (cut.durationMs > startMs)
      cut.chapters.push({ title: section.section.title, startMs, endMs: cut.durationMs });
  }
  return cut;
}

/** The second language's words, where both are to be read. */
function otherWords({ finish, second }: Lesson): Assembly['words']['other'] {
  if (finish.look.languages !== 'both' || !second) return null;
  return {
    language: second.language,
    texts: Object.fromEntries(
      second.texts
        .filter(({ other }) => other.trim() !== '')
        .map(({ text, other }) => [text, other]),
    ),
  };
}

function placeBlock(
  cut: Assembly,
  planned: ScheduledBlock,
  takes: ReadonlyMap<string, TakeFacts>,
  context: BoardContext,
): void {
  const { lesson } = context;
  const { settings, filming } = lesson;
  const { language } = settings;
  const say = speaking(language);
  const { block } = planned;
  const atMs = cut.durationMs;
  const pauseSpan = planned.spans.find((span) => span.kind === 'pause-sign');
  const spans = planned.spans.filter((span) => span.kind !== 'pause-sign');
  const picture = pictureOf(block, spans, takes, language);
  const bodyMs = bodyLength(block, picture, pauseSpan?.startMs ?? planned.durationMs);
  const edits = block.edits.flatMap((edit) => {
    const why = whyNot(edit, bodyMs) ?? takeFault(edit, takes);
    if (why !== null) cut.dropped.push({ blockId: block.id, edit, why });
    if (why !== null) return [];
    // A stretch ends with the block at the latest.
    return 'fromMs' in edit && edit.toMs > bodyMs ? [{ ...edit, toMs: bodyMs }] : [edit];
  });
  const reel = reelOf(bodyMs, edits);
  const pictures = new Pictures({
    blockId: block.id,
    picture,
    edits,
    mirrored: settings.sides === 'mirrored',
    takes,
  });
  cut.segments.push(...pictures.segments(reel.runs, atMs, cut.segments.at(-1), floorUse(block)));

  const body = { startMs: 0, endMs: bodyMs };
  const facts = picture.kind === 'take' ? takes.get(picture.footing.takeId) : undefined;
  const heard =
    picture.kind === 'take' && facts
      ? spokenSentences(
          block.script,
          picture.footing,
          facts,
          edits.filter((edit) => edit.kind === 'said'),
        )
      : null;
  const said = heard && laidSentences(heard, body, countWords);
  const numbers = countersOf(block, spans, say);
  // Counted by hand comes before counted by the program.
  const byHand = edits.findLast((edit) => edit.kind === 'taps')?.taps ?? null;
  const taps =
    byHand ??
    (picture.kind === 'take' && facts
      ? tapsOf(countedBouts(block, spans, picture.footing, facts))
      : null);
  const counted =
    taps && countersOfTaps({ taps }, numbers, spans).filter(({ startMs }) => startMs < bodyMs);
  // A card says the answer, and what is needed, itself.
  const isTake = picture.kind === 'take';
  const byPlan: OverlayLanes = {
    pointer: [],
    clock: clocksOf(spans, language),
    counter: counted ?? numbers,
    cue: cuesOf(
      block,
      spans,
      body,
      language,
      (sentence) => said?.find(({ from }) => from === sentence.from)?.startMs ?? null,
    ).filter(({ moment }) => isTake || moment !== 'answer'),
    caution: cautionsOf(block, body),
    side: lesson.finish.look.sides
      ? sidesOf(
          block,
          spans,
          (ms) => pictures.lookAt(ms).mirrored,
          counted ? workedSides(counted, numbers) : { of: [], sides: [] },
        )
      : [],
    board: boardsOf(block, spans, body, isTake ? context : { ...context, newKit: [] }),
  };
  placeLanes(cut.lanes, withHand(byPlan, edits, bodyMs), reel, atMs);
  if (picture.kind === 'take' && facts) {
    for (const edit of edits)
      if (edit.kind === 'point')
        cut.lanes.pointer.push(
          ...pointersAt(edit, picture.footing, facts, pictures).flatMap((overlay) =>
            laid(overlay, reel, atMs),
          ),
        );
  }
  placeExtras(cut.lanes, reel, pictures, atMs, say);

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
                : Math.min(bodyMs, speechMs(block.script, settings.speechWpm)),
          });
  for (const caption of captions) cut.captions.push(...laid(caption, reel, atMs));
  for (const { text, from, ...span } of said ?? []) {
    const isGuess = heard?.find((sentence) => sentence.from === from)?.startMs === null;
    const [piece] = inVideo(reel, span);
    if (piece)
      cut.sentences.push({
        blockId: block.id,
        text,
        isGuess,
        startMs: atMs + piece.startMs,
        endMs: atMs + piece.endMs,
      });
  }

  placePacer(cut, pacerEvents(block, lesson), reel, atMs);

  let endMs = atMs + reel.lengthMs;
  if (block.pauseAfter && pauseSpan) {
    const { practiceMs, signMs, prompt } = block.pauseAfter;
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
    cut.segments.push(
      ...sign.segments([{ kind: 'own', atMs: 0, fromMs: 0, toMs: signMs }], endMs, undefined, null),
    );
    cut.pauses.push({
      blockId: block.id,
      startMs: endMs,
      endMs: endMs + signMs,
      practiceMs,
      prompt,
    });
    endMs += signMs;
  }
  const places = edits.flatMap((edit) =>
    edit.kind === 'place' ? [{ slot: edit.slot, x: edit.x, y: edit.y }] : [],
  );
  const performer =
    picture.kind === 'take'
      ? performerOf(block, filming, settings.sides === 'mirrored')
      : CARD_WORDS;
  if (endMs > atMs)
    cut.blocks.push({ blockId: block.id, startMs: atMs, endMs, reel, performer, places });
  cut.durationMs = endMs;
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

function placePacer(cut: Assembly, events: readonly PacerEvent[], reel: Reel, atMs: number): void {
  const { pacer, heard } = cut.sound;
  if (pacer === 'left out') return;
  for (const { atMs: ownMs, tone, say } of events) {
    const [seen] = inVideo(reel, { startMs: ownMs, endMs: ownMs + 1 });
    if (!seen || !heard.includes(voiceOf[tone])) continue;
    const isSpoken = pacer !== 'tones' && say !== '';
    if (isSpoken) cut.spoken.calls.push({ atMs: atMs + seen.startMs, say });
    if (pacer !== 'spoken') cut.tones.push({ atMs: atMs + seen.startMs, tone });
  }
}

/** Ids of all takes a cut shows or is heard in. */
export function takesIn({ segments, sound: { music } }: Assembly): Set<string> {
  const sources = segments.flatMap(({ source, under, beside, sound }) => [
    source,
    under?.source,
    beside?.source,
    sound?.source,
  ]);
  return new Set([
    ...sources.flatMap((source) => (source?.kind === 'take' ? [source.takeId] : [])),
    ...(music ? [music.takeId] : []),
  ]);
}

/** Where a card has its heading and first lines: nothing is to lie over them. */
const CARD_WORDS: Region = { x: 75, y: 370, width: 520, height: 330 };

function performerOf(block: Block, filming: Lesson['filming'], mirrored: boolean): Region | null {
  const [shot] = shotsOf(block);
  const region = shot ? performerInFrame(block, shot, filming) : null;
  return region && mirrored ? { ...region, x: 1_000 - region.x - region.width } : region;
}

/** Scraps of text shorter than this cannot be read and are left away. */
const SCRAP_MS = 400;

/** An overlay or caption of the block's own time where it comes to lie in the video. */
function laid<T extends Overlay | Caption>(item: T, reel: Reel, atMs: number): T[] {
  const pieces = inVideo(reel, item);
  return pieces
    .filter(
      ({ startMs, endMs }) =>
        'goneMs' in item || pieces.length === 1 || endMs - startMs >= SCRAP_MS,
    )
    .map(({ startMs, endMs, goneMs }) => ({
      ...item,
      startMs: atMs + startMs,
      endMs: atMs + endMs,
      ...('goneMs' in item && { goneMs: item.goneMs + goneMs }),
    }));
}

function placeLanes(to: OverlayLanes, own: OverlayLanes, reel: Reel, atMs: number): void {
  for (const slot of slots)
    (to[slot] as Overlay[]).push(
      ...own[slot]
        .flatMap((overlay) => laid<Overlay>(overlay, reel, atMs))
        .sort((a, b) => a.startMs - b.startMs),
    );
}

const speedWords = (speed: number, say: Say) =>
  speed === 100
    ? say('again.once')
    : speed === 50
      ? say('again.half')
      : speed === 25
        ? say('again.quarter')
        : say('again.at', { speed });

/**
 * What is said over something put in: that it is shown again, and what a still picture points at.
 */
function placeExtras(
  lanes: OverlayLanes,
  { runs }: Reel,
  pictures: Pictures,
  atMs: number,
  say: Say,
): void {
  for (const run of runs) {
    if (run.kind !== 'extra') continue;
    const span = { startMs: atMs + run.atMs, endMs: atMs + run.atMs + run.lengthMs };
    const { edit } = run;
    if (edit.kind === 'again')
      lanes.cue.push({
        slot: 'cue',
        ...span,
        text: speedWords(edit.speed, say),
        moment: 'again',
        pair: null,
      });
    if (edit.kind !== 'freeze') continue;
    const at = edit.point && onScreen(pictures.lookAt(edit.atMs), edit.point);
    if (at)
      lanes.pointer.push({
        slot: 'pointer',
        ...span,
        text: edit.text,
        ...at,
        words: roomySide(at),
      } satisfies PointerOverlay);
    else if (edit.text !== '')
      lanes.cue.push({
        slot: 'cue',
        ...span,
        text: edit.text,
        moment: 'throughout',
        pair: null,
      } satisfies CueOverlay);
  }
  lanes.cue.sort((a, b) => a.startMs - b.startMs);
  lanes.pointer.sort((a, b) => a.startMs - b.startMs);
}

function questionCaptions(block: BlockOf<'question'>, spans: readonly Span[]): Caption[] {
  const said: Partial<Record<SpanKind, string>> = {
    ask: `${block.script} ${block.question}`.trim(),
    answer: block.answer,
  };
  return spans.flatMap((span): Caption[] => captionsFor(said[span.kind] ?? '', span));
}

/** A question without footage is a card that shows the answer only when its time comes. */
function pictureOf(
  block: Block,
  spans: readonly Span[],
  takes: ReadonlyMap<string, TakeFacts>,
  language: string,
): Picture {
  const take = block.footage && takes.get(block.footage.takeId);
  if (block.footage && take && block.kind !== 'card') {
    const footing = footingOf(block.footage, take);
    // A talk that lies by its marks is over at its end mark.
    const endMs =
      block.kind === 'talk' && block.footage.startsAtMs === null ? take.marked?.endMs : null;
    const takeFrames = endMs ? Math.min(take.frames, firstFrameFrom(endMs)) : take.frames;
    if (firstFrameFrom(footing.startMs) < takeFrames)
      return { kind: 'take', footing: { ...footing, takeFrames } };
  }
  const card = cardOf(block, language);
  const answer =
    block.kind === 'question' ? spans.find((span) => span.kind === 'answer') : undefined;
  const cards = [{ fromMs: 0, card }];
  if (block.kind === 'question' && answer)
    cards.push({ fromMs: answer.startMs, card: { heading: card.heading, lines: [block.answer] } });
  return { kind: 'cards', cards };
}

/** The same thing for each and for the group are two. */
const kitKey = ({ name, share }: Kit) => `${share} ${name.trim().toLowerCase()}`;

function bodyLength(block: Block, picture: Picture, plannedMs: number): number {
  if (block.kind !== 'talk' || picture.kind !== 'take' || block.fixedMs !== null) return plannedMs;
  const { startMs, takeFrames, rate } = picture.footing;
  const footageMs = Math.floor(instantOfFrame(takeFrames - firstFrameFrom(startMs)) / rate);
  return footageMs >= TALK_MIN_MS ? footageMs : plannedMs;
}

function cardOf(block: Block, language: string): CardText {
  if (block.kind === 'card') return { heading: block.title, lines: block.lines };
  if (block.kind === 'question') return { heading: block.question || block.title, lines: [] };
  return {
    heading: block.title,
    lines: [
      ...exerciseTitles(block, language),
      ...block.kit.map((item) => kitText(item, language)),
    ],
  };
}
