import { writeFile } from 'node:fs/promises';
import { BESIDE_BOXES } from '@zest/core/overlay';
import type { Finish } from '@zest/core/lesson';
import { OUTPUT_FPS } from '@zest/core/time';
import { GUARDED_INPUT } from '../media/ffmpeg.ts';
import type { TakePath } from '../media/store.ts';
import { even, pictureSize, pixelsOf, type FrameSize } from './frame-size.ts';
import { cardRgba } from './paint.ts';
import type { PiecePicture, Shot, ShotLook } from './pieces.ts';

/** Bars beside a picture that is not 16:9; the pages use the same colour. */
const BARS = '0x26211c';
/** A blurred region is drawn this many times smaller and enlarged again; the pages do the same. */
const BLUR_PARTS = 24;

/**
 * Where in its working copy a shot begins: a hair before the frame, so that rounding can never skip
 * it.
 */
export function seekTo(inFrame: number): string[] {
  return inFrame > 0 ? ['-ss', (inFrame / OUTPUT_FPS - 0.001).toFixed(6)] : [];
}

const boxOf = (
  { x, y, width, height }: ShotLook['blurs'][number],
  { width: W, height: H }: FrameSize,
) => {
  const [left, top] = [even((x * W) / 1_000), even((y * H) / 1_000)];
  return {
    left,
    top,
    width: Math.max(2, Math.min(W - left, even((width * W) / 1_000))),
    height: Math.max(2, Math.min(H - top, even((height * H) / 1_000))),
  };
};

const turns: Record<number, string[]> = {
  1: ['transpose=1'],
  2: ['hflip', 'vflip'],
  3: ['transpose=2'],
};

/**
 * Builds the inputs and filters of a piece's picture before its overlays. Every chain lasts exactly
 * `frames` frames: short footage holds its last one. Every length is finite: an endless pad never
 * lets ffmpeg finish.
 */
export class PictureGraph {
  readonly input: string[] = [];
  readonly filters: string[] = [];
  /** Pixels of the picture, which may be a part of the frame. */
  private readonly size: FrameSize;
  #inputs = 0;
  #labels = 0;

  constructor(
    private readonly frames: number,
    private readonly takePath: TakePath,
    /** Beginning of the names of raw pictures. */
    private readonly rawName: string,
    private readonly frame: FrameSize,
    private readonly cardLook: Finish['look'],
    /** What footage is read with. */
    private readonly reading: readonly string[],
  ) {
    this.size = pictureSize(frame);
  }

  get inputs(): number {
    return this.#inputs;
  }

  #label(): string {
    this.#labels += 1;
    return `p${this.#labels}`;
  }

  /** A take's frames in time, fitted into the frame. @returns its label */
  async #shot({ sha, inFrame, available, speed }: Shot, quarters: number): Promise<string> {
    const { width: W, height: H } = this.size;
    this.input.push(
      ...[...this.reading, ...seekTo(inFrame), ...GUARDED_INPUT],
      ...['-an', '-i', await this.takePath(sha)],
    );
    const chain = [`setpts=N/${OUTPUT_FPS}/TB`, `fps=${OUTPUT_FPS}`, `trim=end_frame=${available}`];
    // Rounded up, output frame n shows the last frame at or before n times the speed.
    if (speed !== 1)
      chain.push(
        'settb=1/90000',
        `setpts=N*${90_000 / OUTPUT_FPS}/${speed}`,
        `fps=${OUTPUT_FPS}:round=up`,
      );
    // Working copies are limited-range BT.709: asked for once more, each frame would be converted.
    chain.push(
      ...(turns[quarters] ?? []),
      `scale=${W}:${H}:force_original_aspect_ratio=decrease:force_divisible_by=2`,
      `pad=${W}:${H}:(ow-iw)/2:(oh-ih)/2:color=${BARS}`,
      'setsar=1',
      'format=yuv420p',
      `tpad=stop=${this.frames}:stop_mode=clone`,
      `trim=end_frame=${this.frames}`,
    );
    const label = this.#label();
    this.filters.push(`[${this.#inputs}:v]${chain.join(',')}[${label}]`);
    this.#inputs += 1;
    return label;
  }

  #then(from: string, chain: readonly string[]): string {
    if (chain.length === 0) return from;
    const label = this.#label();
    this.filters.push(`[${from}]${chain.join(',')}[${label}]`);
    return label;
  }

  #blurred(from: string, region: ShotLook['blurs'][number]): string {
    const { left, top, width, height } = boxOf(region, this.size);
    const [plain, part, soft, out] = [this.#label(), this.#label(), this.#label(), this.#label()];
    const small = `${Math.max(1, Math.round(width / BLUR_PARTS))}:${Math.max(1, Math.round(height / BLUR_PARTS))}`;
    this.filters.push(
      `[${from}]split[${plain}][${part}]`,
      `[${part}]crop=${width}:${height}:${left}:${top},scale=${small}:flags=area,scale=` +
        `${width}:${height}:flags=bilinear[${soft}]`,
      `[${plain}][${soft}]overlay=${left}:${top}[${out}]`,
    );
    return out;
  }

  /** A piece's picture: footage with its look, or a card. @returns its label */
  async picture(picture: PiecePicture): Promise<string> {
    const { width: W, height: H } = this.size;
    if (picture.kind === 'card') {
      const { frame } = this;
      const file = `${this.rawName}-${this.#inputs}.rgba`;
      await writeFile(file, cardRgba(picture.card, this.cardLook, frame));
      this.input.push(
        '-f',
        'rawvideo',
        '-pixel_format',
        'rgba',
        '-video_size',
        `${frame.width}x${frame.height}`,
        '-framerate',
        String(OUTPUT_FPS),
        '-i',
        file,
      );
      const label = this.#label();
      this.filters.push(
        `[${this.#inputs}` +
          ':v]scale=out_color_matrix=bt709:out_range=tv,format=yuv420p,tpad=stop=' +
          `${this.frames}:stop_mode=clone,trim=end_frame=${this.frames}[${label}]`,
      );
      this.#inputs += 1;
      return label;
    }
    const { look, beside } = picture;
    let label = await this.#shot(picture.shot, look.quarters);
    for (const region of look.blurs) label = this.#blurred(label, region);
    if (look.closer) {
      label = this.#then(label, this.#closer(look.closer));
    }
    if (look.mirrored) label = this.#then(label, ['hflip']);
    label = beside ? await this.#beside(label, beside, look.mirrored) : label;
    const { width, height } = this.frame;
    return width === W && height === H
      ? label
      : this.#then(label, [`pad=${width}:${height}:0:0:color=${BARS}`]);
  }

  /**
   * A region of the frame as large as the frame. One that moves goes by parts of pixels: by whole
   * ones, enlarged, it would be seen to jump.
   */
  #closer({ from, to }: NonNullable<ShotLook['closer']>): string[] {
    const { width: W, height: H } = this.size;
    const [x, y, w, h] = [
      (from.x * W) / 1_000,
      (from.y * H) / 1_000,
      (from.width * W) / 1_000,
      (from.height * H) / 1_000,
    ];
    if (from.x === to.x && from.y === to.y)
      return [`crop=${even(w)}:${even(h)}:${x}:${y}`, `scale=${W}:${H}`, 'setsar=1'];
    // The filter counts frames from 1, and goes from the middles of pixels, not from their borders.
    const way = (at: number, by: number) => `${at}+${by}*(on-1)/${this.frames}`;
    const [left, top] = [
      (size: number) => way(x + size - (1 - w / W) / 2, ((to.x - from.x) * W) / 1_000),
      (size: number) => way(y + size - (1 - h / H) / 2, ((to.y - from.y) * H) / 1_000),
    ];
    const corners = [
      [0, 0],
      [w, 0],
      [0, h],
      [w, h],
    ].flatMap(([across = 0, down = 0], i) => [`x${i}='${left(across)}'`, `y${i}='${top(down)}'`]);
    return [`perspective=${corners.join(':')}:interpolation=cubic:sense=source:eval=frame`];
  }

  async #beside(
    main: string,
    { shot, layout }: NonNullable<(PiecePicture & { kind: 'take' })['beside']>,
    mirrored: boolean,
  ): Promise<string> {
    const { width: W, height: H } = this.size;
    const second = this.#then(await this.#shot(shot, 0), mirrored ? ['hflip'] : []);
    const out = this.#label();
    if (layout === 'halves') {
      const half = [`crop=${even(W / 2)}:${H}:${even(W / 4)}:0`];
      this.filters.push(
        `[${this.#then(main, half)}][${this.#then(second, half)}]hstack,scale=${W}:${H},setsar=1[${out}]`,
      );
      return out;
    }
    const { left: x, top: y, width, height } = pixelsOf(BESIDE_BOXES[layout], this.size);
    const small = this.#then(second, [`scale=${width}:${height}`, 'setsar=1']);
    this.filters.push(`[${main}][${small}]overlay=${x}:${y}[${out}]`);
    return out;
  }

  /** The picture comes up over another one, evenly over its whole length. */
  over(under: string, label: string): string {
    const [clear, out] = [this.#label(), this.#label()];
    this.filters.push(
      `[${label}]format=yuva420p,fade=t=in:s=0:n=${this.frames}:alpha=1[${clear}]`,
      `[${under}][${clear}]overlay=eval=init,format=yuv420p[${out}]`,
    );
    return out;
  }
}
