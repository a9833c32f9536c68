import type { Assembly, Board, Segment, TakeSource } from '@zest/core/assembly';
import type { Side } from '@zest/core/lesson';
import { wordsPerMinute } from '@zest/core/schedule';
import { lengthText, type TimeSpan } from '@zest/core/time';
import { teacherText } from '@zest/core/words';

/** A lane, by what it holds. */
export type LaneId =
  | 'picture'
  | 'clock'
  | 'counter'
  | 'side'
  | 'cue'
  | 'board'
  | 'pointer'
  | 'caution'
  | 'captions'
  | 'words'
  | 'pause';

export interface LaneItem extends TimeSpan {
  text: string;
  tone: 'plain' | 'warm' | 'cool' | 'pale';
  /** The take it shows from, for its pictures. */
  take?: Segment & { source: TakeSource };
  /** Moments at which a repetition is done. */
  beads?: number[];
  /** What may be dragged to another time: a sentence of this block. */
  sentence?: { blockId: string; text: string };
  /** More about it than its text and length. */
  more?: string;
}

export interface Lane {
  id: LaneId;
  name: string;
  items: LaneItem[];
}

/** Repetitions of one side run together: a lane shows stretches, not every beat. */
function joined(items: LaneItem[]): LaneItem[] {
  const rows: LaneItem[] = [];
  for (const item of items) {
    const last = rows.at(-1);
    if (last && last.text === item.text && last.endMs === item.startMs) {
      last.endMs = item.endMs;
      last.beads?.push(...(item.beads ?? []));
    } else rows.push({ ...item, ...(item.beads && { beads: [...item.beads] }) });
  }
  return rows;
}

function pictureText({ source, look, beside, under }: Assembly['segments'][number]): string {
  if (source.kind === 'card') return `Card: ${source.card.heading}`;
  const how = [
    source.takeFrames === source.inFrame + 1
      ? teacherText('lanes.still')
      : Math.abs(source.speed - 1) > 0.01
        ? `${Math.round(source.speed * 100)} %`
        : '',
    look.closer ? teacherText('lanes.closer') : '',
    look.blurs.length > 0 ? teacherText('lanes.blurred') : '',
    look.quarters > 0 ? teacherText('lanes.turned') : '',
    beside ? teacherText('lanes.two-views') : '',
    under ? teacherText('lanes.fades-in') : '',
  ].filter((word) => word !== '');
  return how.length > 0
    ? `${teacherText('lanes.take')}, ${how.join(', ')}`
    : teacherText('lanes.take');
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
      return teacherText('lanes.floor');
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

const isTake = (segment: Segment): segment is Segment & { source: TakeSource } =>
  segment.source.kind === 'take';

/** Items as long as what they tell of. */
const itemsOf = <T extends TimeSpan>(
  spans: readonly T[],
  about: (span: T) => Omit<LaneItem, keyof TimeSpan>,
): LaneItem[] =>
  spans.map((span) => ({ startMs: span.startMs, endMs: span.endMs, ...about(span) }));

/** A lane for each purpose the lesson uses, by what it is for. */
export function lanesOf(assembly: Assembly): Lane[] {
  const { lanes } = assembly;
  const sides: readonly (TimeSpan & { side: Side | null })[] =
    lanes.side.length > 0 ? lanes.side : lanes.counter.filter(({ side }) => side !== null);
  const rows: Omit<Lane, 'name'>[] = [
    {
      id: 'picture',
      items: itemsOf(assembly.segments, (s) => ({
        text: pictureText(s),
        tone: s.source.kind === 'card' ? 'plain' : 'cool',
        ...(isTake(s) && { take: s }),
      })),
    },
    {
      id: 'clock',
      items: itemsOf(lanes.clock, (c) => ({
        text: c.title,
        tone: c.phase === 'work' ? 'warm' : 'pale',
      })),
    },
    {
      id: 'counter',
      items: joined(
        itemsOf(lanes.counter, (c) => ({
          text: `${c.reps}${c.side ? ` ${c.side}` : ''}`,
          tone: 'warm' as const,
          beads: c.rep > 0 && c.elapsedMs === 0 && !c.missed ? [c.startMs] : [],
        })),
      ),
    },
    {
      id: 'side',
      items: joined(
        itemsOf(sides, (c) => ({
          text: c.side ?? '',
          tone: c.side === 'left' ? ('pale' as const) : ('plain' as const),
        })),
      ),
    },
    {
      id: 'cue',
      items: itemsOf(lanes.cue, (c) => ({
        text: c.text,
        tone: 'pale',
      })),
    },
    {
      id: 'board',
      items: itemsOf(lanes.board, (b) => ({
        text: boardText(b.board),
        tone: 'plain',
      })),
    },
    {
      id: 'pointer',
      items: itemsOf(lanes.pointer, (c) => ({
        text: c.text,
        tone: 'warm',
      })),
    },
    {
      id: 'caution',
      items: itemsOf(lanes.caution, (c) => ({
        text: c.text,
        tone: c.tone === 'correction' ? 'cool' : 'warm',
      })),
    },
    {
      id: 'captions',
      items: itemsOf(assembly.captions, (c) => ({
        text: c.lines.join(' '),
        tone: 'plain',
      })),
    },
    {
      id: 'words',
      items: itemsOf(assembly.sentences, ({ startMs, endMs, text, isGuess, blockId }) => ({
        text: isGuess ? `? ${text}` : text,
        tone: isGuess ? 'warm' : 'cool',
        sentence: { blockId, text },
        ...(!isGuess && {
          more: teacherText('lanes.words-minute', {
            n: Math.round(wordsPerMinute(text, endMs - startMs)),
          }),
        }),
      })),
    },
    {
      id: 'pause',
      items: itemsOf(assembly.pauses, (p) => ({
        text: teacherText(p.isRest ? 'lane.rest-off' : 'lane.practice-off', {
          length: lengthText(p.practiceMs),
        }),
        tone: 'cool',
      })),
    },
  ];
  return rows
    .filter(({ items }) => items.length > 0)
    .map((row) => ({ ...row, name: teacherText(`lane.${row.id}`) }));
}
