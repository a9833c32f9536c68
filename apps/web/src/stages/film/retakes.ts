import type { RetakeReason, Take } from '@zest/contract';
import type { ShotToFilm } from '@zest/core/framing';

/** Whether every take of a shot has something against it, so that it is to be filmed again. */
function isToRetake(takes: readonly Take[]): boolean {
  return takes.length > 0 && takes.every(({ reason }) => reason !== null);
}

const usable = (takes: readonly Take[]) =>
  takes.filter(({ state, inBin }) => state !== 'failed' && !inBin);

/** Takes of a shot; one that does not say which shot it shows counts for the block's first. */
export function takesOfShot(
  takes: readonly Take[],
  { block, shot }: ShotToFilm,
  isFirst: boolean,
): Take[] {
  return usable(takes).filter(
    (take) =>
      take.blockId === block.id &&
      (take.performance ? take.performance.shotId === shot.id : isFirst),
  );
}

export interface ShotProgress {
  filmed: ReadonlySet<string>;
  toRetake: ReadonlySet<string>;
}

/** Which shots are filmed, and which of them have to be filmed again. By shot id. */
export function shotProgress(shots: readonly ShotToFilm[], takes: readonly Take[]): ShotProgress {
  const filmed = new Set<string>();
  const toRetake = new Set<string>();
  const seen = new Set<string>();
  for (const shot of shots) {
    const isFirst = !seen.has(shot.block.id);
    seen.add(shot.block.id);
    const found = takesOfShot(takes, shot, isFirst);
    if (isToRetake(found)) toRetake.add(shot.id);
    else if (found.length > 0) filmed.add(shot.id);
  }
  return { filmed, toRetake };
}

/** How often each reason was given, most often first. */
export function reasonCounts(takes: readonly Take[]): { reason: RetakeReason; count: number }[] {
  const counts = new Map<RetakeReason, number>();
  for (const { reason } of takes) if (reason) counts.set(reason, (counts.get(reason) ?? 0) + 1);
  return [...counts]
    .map(([reason, count]) => ({ reason, count }))
    .sort((a, b) => b.count - a.count || a.reason.localeCompare(b.reason));
}
