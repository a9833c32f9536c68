import { assemble, slots } from '@zest/core/assembly';
import { sceneAt } from '@zest/core/overlay';
import { anHour } from './lessons.ts';
import { median, timed, type Result } from './result.ts';

const SCENES = 100_000;
const LEAST = 20_000;

/** Scenes a second on an hour with 300 overlays, at instants spread over it. */
export async function scenes(): Promise<Result[]> {
  const cut = assemble(anHour(), new Map());
  const overlays = slots.reduce((sum, slot) => sum + cut.lanes[slot].length, 0);
  let items = 0;
  const runs: number[] = [];
  for (let run = 0; run < 5; run += 1) {
    runs.push(
      await timed(() => {
        for (let i = 0; i < SCENES; i += 1)
          items += sceneAt(cut, (i * 7_919) % cut.durationMs).items.length;
      }),
    );
  }
  const rate = Math.round((SCENES / median(runs)) * 1000);
  return [
    {
      what:
        `${Math.round(cut.durationMs / 60_000)} min, ${overlays} overlays, ` +
        `${(items / SCENES / 5).toFixed(2)} shown on average`,
      value: `${rate} scenes a second`,
      limit: `at least ${LEAST}`,
      holds: rate >= LEAST && overlays >= 300 && cut.durationMs >= 3_600_000,
    },
  ];
}
