import { assemble } from '@zest/core/assembly';
import { paintItemAt, placesOf, REFERENCE, sceneAt } from '@zest/core/overlay';
import { instantOfFrame } from '@zest/core/time';
import { createCanvas } from '@napi-rs/canvas';
import { loadFonts } from '../../apps/server/src/publish/paint.ts';
import { anHour } from './lessons.ts';
import { median, timed, type Result } from './result.ts';

const RUNS = 9;
const FRAMES = 300;
const MOST_CUT_MS = 100;
const MOST_PAINT_MS = 4;

/**
 * The first cut of an hour with the places of its overlays, and the painter at 1280x720, as the
 * export uses it: each slot by itself, drawn and read back.
 */
export async function assembling(): Promise<Result[]> {
  const lesson = anHour();
  const takes = new Map([['take', { id: 'take', frames: 120_000, marked: null }]]);
  for (const { blocks } of lesson.sections)
    blocks.forEach((block, i) => (block.footage = { takeId: 'take', startsAtMs: i * 300_000 }));
  const cuts: number[] = [];
  for (let run = 0; run < RUNS; run += 1) {
    cuts.push(
      await timed(() => {
        placesOf(assemble(lesson, takes));
      }),
    );
  }
  const cut = assemble(lesson, takes);
  loadFonts();
  const painted: number[] = [];
  for (let run = 0; run < RUNS; run += 1) {
    const canvases = new Map<string, ReturnType<ReturnType<typeof createCanvas>['getContext']>>();
    const ms = await timed(() => {
      for (let frame = 0; frame < FRAMES; frame += 1) {
        const scene = sceneAt(cut, instantOfFrame(frame + run * 1_000));
        for (const item of scene.items) {
          const { width, height, x, y } = item.box;
          const ctx = canvases.get(item.slot) ?? createCanvas(width, height).getContext('2d');
          canvases.set(item.slot, ctx);
          ctx.clearRect(0, 0, width, height);
          paintItemAt(ctx as unknown as Parameters<typeof paintItemAt>[0], item, scene.look, {
            left: x,
            top: y,
            scale: 1,
          });
          ctx.getImageData(0, 0, width, height);
        }
      }
    });
    painted.push(ms / FRAMES);
  }
  const [cutMs, paintMs] = [median(cuts), median(painted)];
  return [
    {
      what: `first cut of ${Math.round(cut.durationMs / 60_000)} min with footage and places`,
      value: `${cutMs.toFixed(1)} ms`,
      limit: `at most ${MOST_CUT_MS} ms`,
      holds: cutMs <= MOST_CUT_MS,
    },
    {
      what: `painter at ${REFERENCE.width}x${REFERENCE.height}, every slot anew on every frame`,
      value: `${paintMs.toFixed(2)} ms a frame`,
      limit: `at most ${MOST_PAINT_MS} ms`,
      holds: paintMs <= MOST_PAINT_MS,
    },
  ];
}
