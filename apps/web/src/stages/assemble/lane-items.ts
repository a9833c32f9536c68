import type { Assembly, Board } from '@zest/core/assembly';
import { wordsPerMinute } from '@zest/core/schedule';
import { lengthText, type TimeSpan } from '@zest/core/time';
import { teacherText } from '@zest/core/words';

export interface LaneItem extends TimeSpan {
  text: string;
  tone: 'plain' | 'warm' | 'cool' | 'pale';
  /** What may be dragged to another time: a sentence of this block. */
  sentence?: { blockId: string; text: string };
  /** More about it than its text and length. */
  more?: string;
}

export interface Lane {
  name: string;
  items: LaneItem[];
}

/** Repetitions of one side run together: a lane shows stretches, not every beat. */
function joined(items: LaneItem[]): LaneItem[] {
  const rows: LaneItem[] = [];
  for (const item of items) {
    const last = rows.at(-1);
    if (last && last.text === item.text && last.endMs === item.startMs) last.endMs = item.endMs;
    else rows.push({ ...item });
  }
  return rows;
}

function pictureText({ source, look, beside, under }: Assembly['segments'][number]): string {
  if (source.kind === 'card') return `Card: ${source.card.heading}`;
  const how = [
    source.takeFrames === source.inFrame + 1
      ? 'still'
      : Math.abs(source.speed - 1) > 0.01
        ? `${Math.round(source.speed * 100)} %`
        : '',
    look.closer ? 'closer' : '',
    look.blurs.length > 0 ? 'blurred' : '',
    look.quarters > 0 ? 'turned' : '',
    beside ? 'two views' : '',
    under ? 'fades in' : '',
  ].filter((word) => word !== '');
  return how.length > 0 ? `Take, ${how.join(', ')}` : 'Take';
}

function boardText(board: Board): string {
  switch (board.kind) {
    case 'chapter':
      return board.title;
    case 'name':
      return board.name;
    case 'kit':
      return board.lines.join(', ');
    case 'floor':
      return 'The floor';
    case 'rules':
      return `${board.players}: ${board.text}`;
    case 'level':
      return `${board.form}: ${board.text}`;
    case 'next':
      return board.title;
    case 'ready':
      return teacherText('lane.ready', { title: board.title });
    case 'strip':
      return `${board.now}${board.then ? `, then ${board.then}` : ''}`;
  }
}

/** A lane for each purpose the lesson uses, by what it is for. */
export function lanesOf(assembly: Assembly): Lane[] {
  const { lanes } = assembly;
  const sides =
    lanes.side.length > 0 ? lanes.side : lanes.counter.filter(({ side }) => side !== null);
  const rows: Lane[] = [
    {
      name: 'Picture',
      items: assembly.segments.map((s) => ({
        startMs: s.startMs,
        endMs: s.endMs,
        text: pictureText(s),
        tone: s.source.kind === 'card' ? 'plain' : 'cool',
      })),
    },
    {
      name: 'Clock',
      items: lanes.clock.map((c) => ({
        startMs: c.startMs,
        endMs: c.endMs,
        text: c.title,
        tone: c.phase === 'work' ? 'warm' : 'pale',
      })),
    },
    {
      name: 'Count',
      items: joined(
        lanes.counter.map((c) => ({
          startMs: c.startMs,
          endMs: c.endMs,
          text: `${c.reps}${c.side ? ` ${c.side}` : ''}`,
          tone: 'warm' as const,
        })),
      ),
    },
    {
      name: 'Side',
      items: joined(
        sides.map((c) => ({
          startMs: c.startMs,
          endMs: c.endMs,
          text: c.side ?? '',
          tone: c.side === 'left' ? ('pale' as const) : ('plain' as const),
        })),
      ),
    },
    {
      name: 'Cue',
      items: lanes.cue.map((c) => ({
        startMs: c.startMs,
        endMs: c.endMs,
        text: c.text,
        tone: 'pale',
      })),
    },
    {
      name: 'Board',
      items: lanes.board.map((b) => ({
        startMs: b.startMs,
        endMs: b.endMs,
        text: boardText(b.board),
        tone: 'plain',
      })),
    },
    {
      name: 'Arrow',
      items: lanes.pointer.map((c) => ({
        startMs: c.startMs,
        endMs: c.endMs,
        text: c.text,
        tone: 'warm',
      })),
    },
    {
      name: 'Caution',
      items: lanes.caution.map((c) => ({
        startMs: c.startMs,
        endMs: c.endMs,
        text: c.text,
        tone: c.tone === 'correction' ? 'cool' : 'warm',
      })),
    },
    {
      name: 'Captions',
      items: assembly.captions.map((c) => ({
        startMs: c.startMs,
        endMs: c.endMs,
        text: c.lines.join(' '),
        tone: 'plain',
      })),
    },
    {
      name: 'Words',
      items: assembly.sentences.map(({ startMs, endMs, text, isGuess, blockId }) => ({
        startMs,
        endMs,
        text: isGuess ? `? ${text}` : text,
        tone: isGuess ? 'warm' : 'cool',
        sentence: { blockId, text },
        ...(!isGuess && {
          more: `${Math.round(wordsPerMinute(text, endMs - startMs))} words a minute`,
        }),
      })),
    },
    {
      name: 'Pause',
      items: assembly.pauses.map((p) => ({
        startMs: p.startMs,
        endMs: p.endMs,
        text: teacherText(p.isRest ? 'lane.rest-off' : 'lane.practice-off', {
          length: lengthText(p.practiceMs),
        }),
        tone: 'cool',
      })),
    },
  ];
  return rows.filter(({ items }) => items.length > 0);
}
