import type { Block, Lesson, Sign } from '../lesson/index.ts';
import { timeBlock, type Call, type Span, type SpanKind } from '../schedule/index.ts';
import { labelText } from '../words/index.ts';
import { calledNumber } from './counts.ts';
import { spanLength } from '../time/index.ts';

/** What a tone means; one sound each. */
export type PacerTone =
  | 'count-in'
  | 'go'
  | 'beat'
  | 'accent'
  | 'tick'
  | 'turn'
  | 'halfway'
  | 'last-five'
  | 'change-sides'
  | 'stop'
  | 'call';

/** A tone, and what is said with it; times count from the block's start on the video clock. */
export interface PacerEvent {
  atMs: number;
  tone: PacerTone;
  /** Empty when only the tone sounds. */
  say: string;
}

/** Of events at the same moment the one further up sounds. */
const PRECEDENCE: readonly PacerTone[] = [
  'call',
  'change-sides',
  'stop',
  'go',
  'halfway',
  'last-five',
  'count-in',
  'accent',
  'tick',
  'beat',
  'turn',
];
type Counts = Lesson['settings']['counts'];

const COUNT_IN = 3;
/** A shorter hold is over before it is counted down. */
const LEAST_HOLD_MS = 4_000;
const LAST = 5;
/** A word needs about this long to be said; what would be talked over stays a tone. */
const WORD_MS = 420;

const callTones: Record<Call['kind'], PacerTone> = {
  start: 'go',
  halfway: 'halfway',
  'last-five': 'last-five',
  stop: 'stop',
  'change-sides': 'change-sides',
  rotate: 'change-sides',
  command: 'call',
};

function countDown(from: number, endMs: number, tone: PacerTone, counts: Counts): PacerEvent[] {
  return Array.from({ length: from }, (_, i) => ({
    atMs: endMs - (from - i) * 1_000,
    tone,
    say: calledNumber(from - i, counts),
  }));
}

/** What a stretch sounds and says, by its kind; the others are silent. */
type Sounding = (span: Span, block: Block, counts: Counts) => PacerEvent[];

const saysItself: Sounding = (span, _block, counts) => [
  { atMs: span.startMs, tone: 'tick', say: labelText(span.label, counts.language) },
];
/** The first of an exercise of a list is called by the exercise's name. */
const isNamed = ({ rep, exercise }: Span) => rep === 1 && exercise !== undefined;
const saysNumber: Sounding = (span, _block, counts) => [
  {
    atMs: span.startMs,
    tone: 'tick',
    say: span.rep === undefined || isNamed(span) ? '' : calledNumber(span.rep, counts),
  },
];
const saysBreak =
  (tone: PacerTone): Sounding =>
  (span, _block, counts) => [
    { atMs: span.startMs, tone, say: labelText(span.label, counts.language) },
    ...restEnd(span, counts),
  ];

const sounding: Partial<Record<SpanKind, Sounding>> = {
  'lead-in': (span, _block, counts) => {
    const seconds = Math.min(COUNT_IN, Math.floor(spanLength(span) / 1_000));
    return countDown(seconds, span.endMs, 'count-in', counts);
  },
  rep: (span, block, counts) => {
    const turnMs = block.kind === 'reps' ? block.tempo.downMs + block.tempo.holdMs : 0;
    const turns = turnMs > 0 && turnMs < spanLength(span);
    return [
      ...saysNumber(span, block, counts),
      ...(turns ? [{ atMs: span.startMs + turnMs, tone: 'turn' as const, say: '' }] : []),
    ];
  },
  lap: saysNumber,
  part: saysItself,
  move: saysItself,
  show: saysItself,
  count: (span, _block, counts) => {
    const { beats, bar = beats } = span.pace?.kind === 'beats' ? span.pace : { beats: 1 };
    const beatMs = spanLength(span) / beats;
    return Array.from({ length: beats }, (_, i) => ({
      atMs: Math.round(span.startMs + i * beatMs),
      tone: i % bar === 0 ? 'accent' : 'beat',
      say: calledNumber(i + 1, counts),
    }));
  },
  hold: (span, _block, counts) =>
    spanLength(span) >= LEAST_HOLD_MS ? countDown(COUNT_IN, span.endMs, 'last-five', counts) : [],
  rest: saysBreak('stop'),
  'round-rest': saysBreak('stop'),
  'set-rest': saysBreak('stop'),
  'side-change': saysBreak('change-sides'),
  ready: (span, _block, counts) => [
    { atMs: span.startMs, tone: 'stop', say: labelText(span.label, counts.language) },
  ],
  think: (span) => [{ atMs: span.endMs, tone: 'stop', say: '' }],
};

/** The last seconds of a break are counted, so that nobody has to look at the clock. */
function restEnd(span: Span, counts: Counts): PacerEvent[] {
  return spanLength(span) >= (COUNT_IN + 1) * 1_000
    ? countDown(COUNT_IN, span.endMs, 'count-in', counts)
    : [];
}

const BEEPS_MS = 300;

/** A sign in place of words: what is to be seen gets one tone, a number is said, beeps are counted. */
function signEvents(atMs: number, sign: Sign, counts: Counts): PacerEvent[] {
  const beeps = sign.by === 'sound' ? sign.beeps : 1;
  return Array.from({ length: beeps }, (_, i) => ({
    atMs: atMs + i * BEEPS_MS,
    tone: 'call',
    say: sign.by === 'number' ? calledNumber(sign.number, counts) : '',
  }));
}

function callEvents(call: Call, counts: Counts): PacerEvent[] {
  const signal = {
    atMs: call.atMs,
    tone: callTones[call.kind],
    say: labelText(call.label, counts.language),
  };
  if (call.sign) return signEvents(call.atMs, call.sign, counts);
  // "Last five" is the five itself, counted down.
  return call.kind === 'last-five'
    ? countDown(LAST, call.atMs + LAST * 1_000, 'last-five', counts)
    : [signal];
}

/** A number counted is said rather than the name of what is counted. */
const isCounted = ({ tone, say }: PacerEvent) =>
  say !== '' && (tone === 'tick' || tone === 'accent');

/** One event at a moment; the tone that matters most, and the number or the first words. */
function merged(events: readonly PacerEvent[]): PacerEvent[] {
  const byMoment = new Map<number, PacerEvent[]>();
  for (const event of events)
    byMoment.set(event.atMs, [...(byMoment.get(event.atMs) ?? []), event]);
  return [...byMoment.entries()]
    .sort(([a], [b]) => a - b)
    .map(([atMs, all]) => {
      const sorted = [...all].sort(
        (a, b) => PRECEDENCE.indexOf(a.tone) - PRECEDENCE.indexOf(b.tone),
      );
      return {
        atMs,
        tone: sorted[0]?.tone ?? 'tick',
        say: (sorted.find(isCounted) ?? sorted.find(({ say }) => say !== ''))?.say ?? '',
      };
    });
}

/** How long words take to be said, roughly: enough to know which would be talked over. */
const spokenMs = (words: string) => WORD_MS * words.trim().split(/\s+/).length;

/** Leaves out words that the last ones still talk over; calls are always said. */
function withoutTalkingOver(events: readonly PacerEvent[]): PacerEvent[] {
  let busyUntil = -Infinity;
  return events.map((event) => {
    if (event.say === '') return event;
    if (event.atMs < busyUntil && event.tone !== 'call') return { ...event, say: '' };
    busyUntil =
      event.atMs +
      Math.min(
        spokenMs(event.say),
        event.tone === 'tick' || event.tone === 'beat' || event.tone === 'accent'
          ? WORD_MS
          : Infinity,
      );
    return event;
  });
}

/**
 * What the pacer sounds and says through a block: counts in, calls work and rest, halves, last
 * five, repetitions, beats, side changes. From the same schedule as the overlays, so both agree to
 * the millisecond.
 */
export function pacerEvents(
  block: Block,
  lesson: Pick<Lesson, 'settings' | 'audience'>,
): PacerEvent[] {
  const { spans, calls } = timeBlock(block, lesson);
  const { counts } = lesson.settings;
  const bodyEnd = spans.findLast(({ kind }) => kind !== 'pause-sign')?.endMs ?? 0;
  const events = [
    ...spans.flatMap((span) => sounding[span.kind]?.(span, block, counts) ?? []),
    ...calls.flatMap((call) => callEvents(call, counts)),
  ];
  return withoutTalkingOver(merged(events.filter(({ atMs }) => atMs >= 0 && atMs <= bodyEnd)));
}

/** Different words a block's pacer says, to be made ready before it starts. */
export function pacerWords(events: readonly PacerEvent[]): string[] {
  return [...new Set(events.map(({ say }) => say).filter((say) => say !== ''))];
}

/**
 * The count of three before the block's first moment, for a block that does not begin with a
 * lead-in of its own.
 */
export function countInEvents(
  block: Block,
  lesson: Pick<Lesson, 'settings' | 'audience'>,
): PacerEvent[] {
  return timeBlock(block, lesson).spans[0]?.kind === 'lead-in'
    ? []
    : countDown(COUNT_IN, 0, 'count-in', lesson.settings.counts);
}
