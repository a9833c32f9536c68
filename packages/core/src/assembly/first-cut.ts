import { exercisesOf, kitText, type Block, type BlockOf, type Footage, type Lesson } from '../lesson/index.ts';
import { scheduleLesson, speechMs, type ScheduledBlock, type Span, type SpanKind } from '../schedule/index.ts';
import { firstFrameFrom, instantOfFrame, lengthText, type TimeSpan } from '../time/index.ts';
import { captionsFor } from './captions.ts';
import { cautionsOf, clocksOf, countersOf, cuesOf } from './overlays.ts';
import type { Assembly, CardText, Source, TakeFacts } from './types.ts';

/** A talk's footage shorter than this is a slip of the start mark; the planned length stands then. */
const TALK_MIN_MS = 1_000;

/**
 * The first cut: every block in order with its take, its clocks, counters, cues, cautions and captions.
 * A timed block lasts what the plan says; a talk with footage lasts as long as the footage. A block
 * without a usable take becomes a card, so the lesson can always be watched whole.
 * @param takes the takes whose working copies are ready, by id
 */
export function firstCut(lesson: Lesson, takes: ReadonlyMap<string, TakeFacts>): Assembly {
  const cut: Assembly = {
    title: lesson.title,
    durationMs: 0,
    mirrored: lesson.settings.sides === 'mirrored',
    segments: [],
    lanes: { clock: [], counter: [], cue: [], caution: [] },
    captions: [],
    pauses: [],
    chapters: [],
    blocks: [],
  };
  for (const section of scheduleLesson(lesson).sections) {
    const startMs = cut.durationMs;
    for (const planned of section.blocks) placeBlock(cut, planned, takes, lesson.settings.speechWpm);
    if (cut.durationMs > startMs) cut.chapters.push({ title: section.section.title, startMs, endMs: cut.durationMs });
  }
  return cut;
}

function placeBlock(cut: Assembly, planned: ScheduledBlock, takes: ReadonlyMap<string, TakeFacts>, wpm: number): void {
  const { block } = planned;
  const atMs = cut.durationMs;
  const source = sourceOf(block, takes);
  const pauseSpan = planned.spans.find((span) => span.kind === 'pause-sign');
  const plannedMs = pauseSpan?.startMs ?? planned.durationMs;
  const bodyMs = bodyLength(block, source, plannedMs);
  const spans = planned.spans.filter((span) => span.kind !== 'pause-sign');
  const body = { startMs: 0, endMs: bodyMs };

  pushBody(cut, block, spans, { startMs: atMs, endMs: atMs + bodyMs }, source);
  cut.lanes.clock.push(...clocksOf(spans, atMs));
  cut.lanes.counter.push(...countersOf(block, spans, atMs));
  cut.lanes.cue.push(...cuesOf(block, spans, body, atMs));
  cut.lanes.caution.push(...cautionsOf(block, body, atMs));

  if (block.kind === 'question') cut.captions.push(...questionCaptions(block, spans, atMs));
  else {
    const saidMs = block.kind === 'talk' ? bodyMs : Math.min(bodyMs, speechMs(block.script, wpm));
    cut.captions.push(...captionsFor(block.script, { startMs: atMs, endMs: atMs + saidMs }));
  }

  let endMs = atMs + bodyMs;
  if (block.pauseAfter && pauseSpan) {
    const { practiceMs, signMs, prompt } = block.pauseAfter;
    const card = { heading: 'Pause and practise', lines: [prompt, lengthText(practiceMs)].filter((line) => line !== '') };
    pushSegment(cut, block.id, endMs, endMs + signMs, { kind: 'card', card });
    cut.pauses.push({ blockId: block.id, startMs: endMs, endMs: endMs + signMs, practiceMs, prompt });
    endMs += signMs;
  }
  if (endMs > atMs) cut.blocks.push({ blockId: block.id, startMs: atMs, endMs });
  cut.durationMs = endMs;
}

/** The picture of a block's body. A question without footage is a card that shows the answer only when its time comes. */
function pushBody(cut: Assembly, block: Block, spans: readonly Span[], body: TimeSpan, source: Source): void {
  const answer = block.kind === 'question' ? spans.find((span) => span.kind === 'answer') : undefined;
  if (block.kind !== 'question' || source.kind !== 'card' || !answer) return pushSegment(cut, block.id, body.startMs, body.endMs, source);
  const answerMs = body.startMs + answer.startMs;
  pushSegment(cut, block.id, body.startMs, answerMs, source);
  const card = { heading: source.card.heading, lines: [block.answer] };
  pushSegment(cut, block.id, answerMs, body.endMs, { kind: 'card', card });
}

function questionCaptions(block: BlockOf<'question'>, spans: readonly Span[], atMs: number) {
  const said: Partial<Record<SpanKind, string>> = { ask: `${block.script} ${block.question}`.trim(), answer: block.answer };
  return spans.flatMap((span) => captionsFor(said[span.kind] ?? '', { startMs: atMs + span.startMs, endMs: atMs + span.endMs }));
}

function sourceOf(block: Block, takes: ReadonlyMap<string, TakeFacts>): Source {
  const take = block.footage && takes.get(block.footage.takeId);
  if (block.footage && take && block.kind !== 'card') {
    const inFrame = firstFrameFrom(startInTake(block.footage, take));
    const takeFrames = lastFrames(block, block.footage, take);
    if (inFrame < takeFrames) return { kind: 'take', takeId: take.id, inFrame, takeFrames };
  }
  return { kind: 'card', card: cardOf(block) };
}

/** Frames of the take that show the block: a talk that lies by its marks is over at its end mark. */
function lastFrames(block: Block, footage: Footage, { frames, marked }: TakeFacts): number {
  const endMs = block.kind === 'talk' && footage.startsAtMs === null ? marked?.endMs : null;
  return endMs ? Math.min(frames, firstFrameFrom(endMs)) : frames;
}

/** Where a block starts in its take: set by hand, else by the take's mark, else the take's beginning. In milliseconds of the working copy. */
export function startInTake(footage: Pick<Footage, 'startsAtMs'>, take: Pick<TakeFacts, 'marked'>): number {
  return footage.startsAtMs ?? Math.max(0, take.marked?.startMs ?? 0);
}

function bodyLength(block: Block, source: Source, plannedMs: number): number {
  if (block.kind !== 'talk' || source.kind !== 'take' || block.fixedMs !== null) return plannedMs;
  const footageMs = instantOfFrame(source.takeFrames - source.inFrame);
  return footageMs >= TALK_MIN_MS ? footageMs : plannedMs;
}

function cardOf(block: Block): CardText {
  if (block.kind === 'card') return { heading: block.title, lines: block.lines };
  if (block.kind === 'question') return { heading: block.question || block.title, lines: [] };
  return { heading: block.title, lines: [...exercisesOf(block).map((exercise) => exercise.title), ...block.kit.map(kitText)] };
}

function pushSegment(cut: Assembly, blockId: string, startMs: number, endMs: number, source: Source): void {
  if (endMs > startMs) cut.segments.push({ blockId, startMs, endMs, source });
}

/** The frame of the take shown at output frame `frame`; the last one once the take has run out. */
export function takeFrameAt(segment: TimeSpan, source: Source & { kind: 'take' }, frame: number): number {
  return Math.min(source.inFrame + (frame - firstFrameFrom(segment.startMs)), source.takeFrames - 1);
}
