import type { FloorUse } from '../ledger/index.ts';
import type { Edit, EditOf, StretchEdit } from '../lesson/index.ts';
import { firstFrameFrom, type BlockMs, type TimeSpan, type VideoMs } from '../time/index.ts';
import { againOnceMs, type BlockTimeMap, type DropReason } from './block-time-map.ts';
import { alignedTake, startInTake, type AlignedTake } from './take-alignment.ts';
import type { CardText, Look, Region, Segment, Source, TakeFacts, TakeSource } from './types.ts';

/** Cards, each from a moment of its block on. */
export type Cards = readonly { fromMs: number; card: CardText }[];

/** What a block shows of itself: its take, with cards in its place from moments on, or cards alone. */
export type Picture =
  { kind: 'take'; aligned: AlignedTake; cards: Cards } | { kind: 'cards'; cards: Cards };

const plain: Look = { quarters: 0, blurs: [], closer: null, mirrored: false };

/** The frame of the take shown at output frame `frame`; the last one once the take has run out. */
export function takeFrameAt(segment: TimeSpan, source: TakeSource, frame: number): number {
  // A hair more, so that a speed that is no binary fraction cannot fall short of a whole frame.
  return Math.min(
    source.inFrame + Math.floor((frame - firstFrameFrom(segment.startMs)) * source.speed + 1e-6),
    source.takeFrames - 1,
  );
}

/**
 * The part of the frame that is shown `part` (0 to 1) of the way through a closer view, in
 * thousandths.
 */
export function closerRegion(
  { zoom, from, to }: NonNullable<Look['closer']>,
  part: number,
): Region {
  const size = 100_000 / zoom;
  const within = (middle: number) => Math.min(1_000 - size, Math.max(0, middle - size / 2));
  return {
    x: within(from.x + (to.x - from.x) * part),
    y: within(from.y + (to.y - from.y) * part),
    width: size,
    height: size,
  };
}

/** Where a place of the camera's picture comes to lie on screen, in thousandths of the frame. */
export function onScreen(look: Look, { x, y }: { x: number; y: number }): { x: number; y: number } {
  const shown = look.closer
    ? closerRegion(look.closer, 0)
    : { x: 0, y: 0, width: 1_000, height: 1_000 };
  const across = ((x - shown.x) * 1_000) / shown.width;
  return { x: look.mirrored ? 1_000 - across : across, y: ((y - shown.y) * 1_000) / shown.height };
}

/**
 * The place of the camera's picture that is seen at a place on screen; the way back of `onScreen`.
 */
export function onCamera(look: Look, { x, y }: { x: number; y: number }): { x: number; y: number } {
  const shown = look.closer
    ? closerRegion(look.closer, 0)
    : { x: 0, y: 0, width: 1_000, height: 1_000 };
  const across = look.mirrored ? 1_000 - x : x;
  return {
    x: Math.round(shown.x + (across * shown.width) / 1_000),
    y: Math.round(shown.y + (y * shown.height) / 1_000),
  };
}

function takeSource(
  { takeId, takeFrames, alignment }: AlignedTake,
  blockMs: BlockMs,
  speed: number,
): TakeSource {
  return {
    kind: 'take',
    takeId,
    inFrame: Math.max(0, Math.min(firstFrameFrom(alignment.toTake(blockMs)), takeFrames - 1)),
    takeFrames,
    speed: alignment.rate * speed,
  };
}

/**
 * What a segment would go on to show after its end; its last frame once its footage has run out.
 */
function goingOn(segment: Segment): Source {
  const { source } = segment;
  return source.kind === 'card'
    ? source
    : { ...source, inFrame: takeFrameAt(segment, source, firstFrameFrom(segment.endMs)) };
}

/** The same source standing still on the frame it shows at output frame `frame`. */
function stillOf(segment: TimeSpan, source: Source, frame: number): Source {
  if (source.kind === 'card') return source;
  const inFrame = takeFrameAt(segment, source, frame);
  return { ...source, inFrame, takeFrames: inFrame + 1, speed: 1 };
}

/**
 * Where a path is at a moment: evenly from point to point, still before the first and after the
 * last.
 */
function onPath(path: EditOf<'closer'>['path'], ms: number): { x: number; y: number } {
  const next = path.findIndex(({ atMs }) => atMs > ms);
  const [a, b] = [
    path[next < 0 ? path.length - 1 : Math.max(0, next - 1)],
    path[next < 0 ? path.length - 1 : next],
  ];
  if (!a || !b) return { x: 500, y: 500 };
  const part = b.atMs > a.atMs ? Math.min(1, Math.max(0, (ms - a.atMs) / (b.atMs - a.atMs))) : 0;
  return { x: a.x + (b.x - a.x) * part, y: a.y + (b.y - a.y) * part };
}

const PICTURE_KINDS = ['closer', 'mirror', 'turn', 'beside', 'instead', 'blur'] as const;
type PictureEdit = Extract<StretchEdit, { kind: (typeof PICTURE_KINDS)[number] }>;
const isPictureEdit = (edit: Edit): edit is PictureEdit =>
  (PICTURE_KINDS as readonly string[]).includes(edit.kind);

interface Filming {
  blockId: string;
  picture: Picture;
  edits: readonly Edit[];
  /** Mirrored as a whole. */
  mirrored: boolean;
  takes: ReadonlyMap<string, TakeFacts>;
}

/**
 * The pictures of one block: its runs as segments, cut wherever a change by hand begins or ends.
 */
export class Pictures {
  readonly #edits: readonly PictureEdit[];
  readonly #borders: readonly number[];
  readonly #fade: EditOf<'fade'> | undefined;

  constructor(private readonly filming: Filming) {
    const { edits, picture } = filming;
    this.#edits = edits.filter(isPictureEdit);
    this.#fade = edits.find((edit) => edit.kind === 'fade');
    this.#borders = [
      ...this.#edits.flatMap((edit) => [
        edit.fromMs,
        edit.toMs,
        ...(edit.kind === 'closer' ? edit.path.map(({ atMs }) => atMs) : []),
      ]),
      ...picture.cards.map(({ fromMs }) => fromMs),
    ];
  }

  /** How footage is shown at a moment of the block. */
  lookAt(blockMs: BlockMs, untilMs = blockMs): Look {
    const on = this.#edits.filter(({ fromMs, toMs }) => fromMs <= blockMs && blockMs < toMs);
    const last = <K extends PictureEdit['kind']>(kind: K) =>
      on.findLast((edit) => edit.kind === kind) as EditOf<K> | undefined;
    const closer = last('closer');
    const along = (ms: number) => {
      if (!closer) return { x: 0, y: 0 };
      if (closer.path.length > 0) return onPath(closer.path, ms);
      const part = (ms - closer.fromMs) / (closer.toMs - closer.fromMs);
      return {
        x: closer.from.x + (closer.to.x - closer.from.x) * part,
        y: closer.from.y + (closer.to.y - closer.from.y) * part,
      };
    };
    return {
      quarters: last('turn')?.quarters ?? 0,
      blurs: on.flatMap((edit) =>
        edit.kind === 'blur'
          ? [{ x: edit.x, y: edit.y, width: edit.width, height: edit.height }]
          : [],
      ),
      closer: closer ? { zoom: closer.zoom, from: along(blockMs), to: along(untilMs) } : null,
      mirrored: this.filming.mirrored !== on.some(({ kind }) => kind === 'mirror'),
    };
  }

  #aligned(edit: EditOf<'beside'> | EditOf<'instead'> | undefined): AlignedTake | null {
    const take = edit && this.filming.takes.get(edit.takeId);
    return edit && take ? alignedTake(edit, take) : null;
  }

  #sourceAt(blockMs: BlockMs, speed: number, aligned: AlignedTake | null): Source {
    const { picture } = this.filming;
    if (aligned) return takeSource(aligned, blockMs, speed);
    const shown = picture.cards.findLast(({ fromMs }) => fromMs <= blockMs);
    if (shown) return { kind: 'card', card: shown.card };
    if (picture.kind === 'take') return takeSource(picture.aligned, blockMs, speed);
    return { kind: 'card', card: picture.cards[0]?.card ?? { heading: '', lines: [] } };
  }

  /** What is heard at a moment: the take goes on to be heard behind a card. */
  #heardAt(blockMs: BlockMs, speed: number, aligned: AlignedTake | null): Source {
    const { picture } = this.filming;
    const heard = aligned ?? (picture.kind === 'take' ? picture.aligned : null);
    return heard ? takeSource(heard, blockMs, speed) : this.#sourceAt(blockMs, speed, null);
  }

  /**
   * The block's own time from `fromMs` to `toMs`, at a speed, as segments from `atMs` of the video
   * on.
   */
  #own(
    fromMs: BlockMs,
    toMs: BlockMs,
    atMs: VideoMs,
    speed: number,
    heard: 'kept' | 'low' | 'off',
    borders: readonly number[],
  ): Segment[] {
    const points = [
      ...new Set([fromMs, ...borders.filter((ms) => ms > fromMs && ms < toMs), toMs]),
    ].sort((a, b) => a - b);
    return points.slice(0, -1).map((blockMs, i): Segment => {
      const untilMs = points[i + 1] ?? toMs;
      const at = (kind: 'beside' | 'instead', picture: boolean) =>
        this.#edits.findLast(
          (edit) =>
            edit.kind === kind &&
            edit.fromMs <= blockMs &&
            blockMs < edit.toMs &&
            (edit.kind === 'beside' || (picture ? edit.picture : edit.sound)),
        ) as EditOf<'beside'> | EditOf<'instead'> | undefined;
      const second = at('beside', true);
      const beside = this.#aligned(second);
      const source = this.#sourceAt(blockMs, speed, this.#aligned(at('instead', true)));
      const voice = this.#heardAt(blockMs, speed, this.#aligned(at('instead', false)));
      return {
        blockId: this.filming.blockId,
        startMs: atMs + Math.round((blockMs - fromMs) / speed),
        endMs: atMs + Math.round((untilMs - fromMs) / speed),
        source,
        look: source.kind === 'take' ? this.lookAt(blockMs, untilMs) : plain,
        beside:
          beside && second?.kind === 'beside' && source.kind === 'take'
            ? { source: takeSource(beside, blockMs, speed), layout: second.layout }
            : null,
        sound:
          voice.kind === 'take' && heard !== 'off' ? { source: voice, low: heard === 'low' } : null,
        under: null,
      };
    });
  }

  /**
   * The segments of the block's runs. `before` is the segment it follows, for a fade.
   */
  segments(
    { startMs: atMs, runs }: Pick<BlockTimeMap, 'startMs' | 'runs'>,
    before: Segment | undefined,
    floor: FloorUse | null,
  ): Segment[] {
    const made = runs.flatMap((run, i): Segment[] => {
      const startMs = atMs + run.atMs;
      if (run.kind === 'own') {
        const borders =
          i === 0 && this.#fade
            ? [...this.#borders, run.fromMs + this.#fade.lengthMs]
            : this.#borders;
        return this.#own(run.fromMs, run.toMs, startMs, 1, 'kept', borders);
      }
      const { edit } = run;
      if (edit.kind === 'again') {
        const onceMs = againOnceMs(edit);
        return Array.from({ length: edit.times }, (_, time) =>
          this.#own(
            edit.fromMs,
            edit.toMs,
            startMs + time * onceMs,
            edit.speed / 100,
            edit.sound,
            this.#borders,
          ),
        ).flat();
      }
      const span = { startMs, endMs: startMs + run.lengthMs };
      const silent = {
        blockId: this.filming.blockId,
        ...span,
        beside: null,
        sound: null,
        under: null,
      };
      if (edit.kind === 'card') {
        const card: CardText = {
          heading: edit.heading,
          lines: edit.lines,
          ...(edit.court && floor && { court: floor }),
        };
        return [{ ...silent, source: { kind: 'card', card }, look: plain }];
      }
      if (edit.kind === 'picture')
        return [
          {
            ...silent,
            source: { kind: 'take', takeId: edit.takeId, inFrame: 0, takeFrames: 1, speed: 1 },
            look: plain,
          },
        ];
      const source = this.#sourceAt(edit.atMs, 1, this.#aligned(undefined));
      return [
        {
          ...silent,
          source: stillOf(span, source, firstFrameFrom(startMs)),
          look: source.kind === 'take' ? this.lookAt(edit.atMs) : plain,
        },
      ];
    });
    const seen = made.filter(({ startMs, endMs }) => endMs > startMs);
    const [first, ...rest] = seen;
    if (!first || !before || !this.#fade) return seen;
    const under = { source: goingOn(before), look: before.look };
    return [{ ...first, under }, ...rest];
  }
}

/** Why a change that names a take cannot be made; null when it can, or names none. */
export function takeFault(edit: Edit, takes: ReadonlyMap<string, TakeFacts>): DropReason | null {
  if (!('takeId' in edit)) return null;
  const take = takes.get(edit.takeId);
  if (!take) return { kind: edit.kind === 'picture' ? 'picture-gone' : 'take-gone' };
  if (edit.kind === 'picture') return null;
  return firstFrameFrom(startInTake(edit, take)) >= take.frames ? { kind: 'take-over' } : null;
}
