import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createCanvas, type SKRSContext2D } from '@napi-rs/canvas';
import { backdrop, drawFigure, type DrawContext } from '@zest/performer';
import { lengthMs, proofPose, proofView, walkerAt, type ProofClip } from '@zest/performer/proof';

const BACKLIGHT = 0.75;

/** Draws a clip into `file` with ffmpeg on the path. Its sound is a tone's silence: quiet noise. */
export async function filmClip(clip: ProofClip, file: string): Promise<void> {
  const { width, height, fps, light, backlit, noise } = clip;
  const frames = Math.round((lengthMs(clip) * fps) / 1_000);
  const filters = [
    `noise=alls=${noise}:allf=t:all_seed=${clip.seed}`,
    'scale=out_color_matrix=bt709:out_range=tv',
    'format=yuv420p',
  ].join(',');
  const ffmpeg = spawn(
    'ffmpeg',
    [
      ...[
        '-y',
        '-v',
        'error',
        '-f',
        'rawvideo',
        '-pixel_format',
        'rgba',
        '-video_size',
        `${width}x${height}`,
        '-framerate',
        String(fps),
        '-i',
        'pipe:0',
      ],
      ...[
        '-f',
        'lavfi',
        '-i',
        `anoisesrc=amplitude=0.002:seed=${clip.seed}:sample_rate=48000`,
        '-shortest',
      ],
      ...[
        '-vf',
        filters,
        '-c:v',
        'libx264',
        '-preset',
        'ultrafast',
        '-crf',
        '27',
        '-colorspace',
        'bt709',
        '-color_range',
        'tv',
        '-c:a',
        'aac',
        '-b:a',
        '64k',
        file,
      ],
    ],
    { stdio: ['pipe', 'inherit', 'inherit'] },
  );
  const ctx = createCanvas(width, height).getContext('2d') as SKRSContext2D & DrawContext;
  const view = proofView(clip);
  for (let frame = 0; frame < frames; frame += 1) {
    const ms = (frame * 1_000) / fps;
    backdrop(ctx, width, height, view.floorY, clip.room);
    const walker = walkerAt(clip, ms);
    if (walker)
      drawFigure(
        ctx,
        walker.pose,
        {
          floorY: view.floorY - 0.08 * view.unit,
          middleX: walker.x * width,
          unit: view.unit * 0.85,
        },
        clip.dress,
      );
    if (backlit > 0) {
      ctx.fillStyle = `rgba(255,255,255,${BACKLIGHT * backlit})`;
      ctx.fillRect(0, 0, width, height);
    }
    drawFigure(ctx, proofPose(clip, ms), view, clip.dress);
    if (backlit > 0) darken(ctx, clip, ms);
    if (light < 1) {
      ctx.fillStyle = `rgba(0,0,0,${1 - light})`;
      ctx.fillRect(0, 0, width, height);
    }
    const pixels = Buffer.from(ctx.getImageData(0, 0, width, height).data.buffer);
    if (!ffmpeg.stdin.write(pixels)) await once(ffmpeg.stdin, 'drain');
  }
  ffmpeg.stdin.end();
  const [code] = (await once(ffmpeg, 'close')) as [number];
  if (code !== 0) throw new Error(`ffmpeg ended with ${code} on ${clip.name}`);
}

/**
 * The performer in their own shadow: the figure drawn again into a layer that is black where the
 * figure is.
 */
function darken(ctx: SKRSContext2D, clip: ProofClip, ms: number): void {
  const layer = createCanvas(clip.width, clip.height);
  const context = layer.getContext('2d') as SKRSContext2D & DrawContext;
  drawFigure(context, proofPose(clip, ms), proofView(clip), clip.dress);
  context.globalCompositeOperation = 'source-in';
  context.fillStyle = '#000000';
  context.fillRect(0, 0, clip.width, clip.height);
  ctx.globalAlpha = clip.backlit;
  ctx.drawImage(layer, 0, 0);
  ctx.globalAlpha = 1;
}
