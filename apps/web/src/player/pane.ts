import { closerRegion, type Look, type Region } from '@zest/core/assembly';
import { BESIDE_BOXES, REFERENCE, type Box } from '@zest/core/overlay';
import { OUTPUT_FPS } from '@zest/core/time';
import { mediaOfFrame } from './frames.ts';

/** What part of the stage a pane fills: all of it, a half, or a small corner. */
export type PaneRoom = 'whole' | 'left half' | 'right half' | 'inset left' | 'inset right';

/** Layout units a part of a blurred region stands for. */
const BLUR_PARTS = 24;

const percent = (value: number, of: number) => `${(value * 100) / of}%`;

/**
 * One video on the stage, shown as a look says: turned, fitted, blurred in places, enlarged,
 * mirrored. The export does the same.
 */
export class Pane {
  readonly video = document.createElement('video');
  readonly #outer = document.createElement('div');
  readonly #frame = document.createElement('div');
  #blurs: readonly HTMLCanvasElement[] = [];

  constructor(stage: HTMLElement) {
    this.#outer.className = 'stage-pane';
    this.#frame.className = 'stage-frame';
    this.video.playsInline = true;
    this.video.preload = 'auto';
    this.video.tabIndex = -1;
    this.#frame.append(this.video);
    this.#outer.append(this.#frame);
    stage.append(this.#outer);
  }

  remove(): void {
    this.video.pause();
    this.video.removeAttribute('src');
    this.video.load();
    this.#outer.remove();
  }

  show(order: number, opacity = 1): void {
    Object.assign(this.#outer.style, {
      visibility: 'visible',
      zIndex: String(order),
      opacity: String(opacity),
    });
  }

  hide(): void {
    this.#outer.style.visibility = 'hidden';
  }

  /** Gets a frame of a file ready; a place it is at already stays. */
  load(url: string, frame: number): void {
    if (this.video.getAttribute('src') !== url) this.video.src = url;
    const seconds = mediaOfFrame(frame);
    if (Math.abs(this.video.currentTime - seconds) > 0.4 / OUTPUT_FPS)
      this.video.currentTime = seconds;
  }

  room(room: PaneRoom): void {
    const box: Box =
      room === 'inset left' || room === 'inset right'
        ? BESIDE_BOXES[room]
        : {
            x: room === 'right half' ? REFERENCE.width / 2 : 0,
            y: 0,
            width: room === 'whole' ? REFERENCE.width : REFERENCE.width / 2,
            height: REFERENCE.height,
          };
    Object.assign(this.#outer.style, {
      left: percent(box.x, REFERENCE.width),
      top: percent(box.y, REFERENCE.height),
      width: percent(box.width, REFERENCE.width),
      height: percent(box.height, REFERENCE.height),
    });
    // A half shows the middle of its picture.
    const isHalf = room === 'left half' || room === 'right half';
    Object.assign(this.#frame.style, {
      width: isHalf ? '200%' : '100%',
      left: isHalf ? '-50%' : '0',
    });
  }

  /** @param part how far through the segment, 0 to 1, for a view that moves */
  look({ quarters, blurs, closer, mirrored }: Look, part: number): void {
    const shown = closer ? closerRegion(closer, part) : { x: 0, y: 0, width: 1_000, height: 1_000 };
    const enlarged = closer
      ? `scale(${1_000 / shown.width}) translate(${-shown.x / 10}%, ${-shown.y / 10}%)`
      : '';
    this.#frame.style.transform = `${mirrored ? 'translateX(100%) scaleX(-1) ' : ''}${enlarged}`;
    // A quarter turn swaps the sides of the box the picture is fitted into.
    const isOnSide = quarters % 2 === 1;
    Object.assign(this.video.style, {
      width: isOnSide ? '100cqh' : '100%',
      height: isOnSide ? '100cqw' : '100%',
      left: isOnSide ? 'calc(50% - 50cqh)' : '0',
      top: isOnSide ? 'calc(50% - 50cqw)' : '0',
      transform: quarters ? `rotate(${quarters * 90}deg)` : '',
    });
    if (this.#blurs.length !== blurs.length) {
      for (const old of this.#blurs) old.remove();
      this.#blurs = blurs.map(() =>
        Object.assign(document.createElement('canvas'), { className: 'stage-blur' }),
      );
      this.#frame.append(...this.#blurs);
    }
    blurs.forEach((region, i) => this.#blurs[i] && this.#blur(this.#blurs[i], region, quarters));
  }

  /** Draws a region in a few large parts, which the browser enlarges softly: as the export does. */
  #blur(canvas: HTMLCanvasElement, { x, y, width, height }: Region, quarters: number): void {
    Object.assign(canvas.style, {
      left: percent(x, 1_000),
      top: percent(y, 1_000),
      width: percent(width, 1_000),
      height: percent(height, 1_000),
    });
    const [W, H] = [REFERENCE.width, REFERENCE.height];
    const [w, h] = [(width * W) / 1_000, (height * H) / 1_000];
    const [columns, rows] = [w, h].map((side) => Math.max(1, Math.round(side / BLUR_PARTS))) as [
      number,
      number,
    ];
    if (canvas.width !== columns || canvas.height !== rows)
      Object.assign(canvas, { width: columns, height: rows });
    const ctx = canvas.getContext('2d');
    const { videoWidth, videoHeight } = this.video;
    if (!ctx || videoWidth === 0) return;
    ctx.imageSmoothingQuality = 'high';
    ctx.setTransform(
      columns / w,
      0,
      0,
      rows / h,
      (-x * W * columns) / (1_000 * w),
      (-y * H * rows) / (1_000 * h),
    );
    ctx.fillStyle = '#26211c';
    ctx.fillRect(0, 0, W, H);
    // Turned and fitted as the frame shows it.
    const isOnSide = quarters % 2 === 1;
    const scale = Math.min(
      W / (isOnSide ? videoHeight : videoWidth),
      H / (isOnSide ? videoWidth : videoHeight),
    );
    ctx.translate(W / 2, H / 2);
    ctx.rotate((quarters * Math.PI) / 2);
    ctx.drawImage(
      this.video,
      (-videoWidth * scale) / 2,
      (-videoHeight * scale) / 2,
      videoWidth * scale,
      videoHeight * scale,
    );
  }

  /** Plays at a speed; the tiny differences of clocks are left to the next seek. */
  speed(speed: number): void {
    const rate = Math.abs(speed - 1) < 0.01 ? 1 : speed;
    if (this.video.playbackRate !== rate) this.video.playbackRate = rate;
  }
}
