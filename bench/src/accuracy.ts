import { findingsIn, SURE_REPETITION, timesKnown, type TakeAnalysis } from '@zest/core/signal';
import { watchFile } from '../../apps/server/src/media/analyse.ts';
import { cpuOf } from './cpu.ts';
import { clipsOf, drawnSets, type KnownClip } from './proof-sets.ts';
import { mean, share, type Result } from './result.ts';

interface Seen {
  clip: KnownClip;
  counted: number;
  isExact: boolean;
  isSure: boolean;
  /** It says that it knows when each is over. */
  isTimed: boolean;
  /** How far off each time is, and how far it may be as it says; where the count is exact. */
  times: { errorMs: number; withinMs: number }[];
  sides: { right: number; wrong: number; untold: number };
  out: { hit: number; wrong: number; missed: number };
  /** How far off the end of the still head and the start of the still tail are. */
  edges: number[];
}

const STEP_MS = 20;
/** A time may be off by so much more than it says. */
const SLACK_MS = 100;

function outOf(
  { outOfFrame, durationMs }: KnownClip,
  said: readonly { startMs: number; endMs: number }[],
) {
  const out = { hit: 0, wrong: 0, missed: 0 };
  const inside = (list: typeof said, ms: number) =>
    list.some(({ startMs, endMs }) => ms >= startMs && ms < endMs);
  for (let ms = 0; ms < durationMs; ms += STEP_MS) {
    const [is, isSaid] = [inside(outOfFrame, ms), inside(said, ms)];
    if (is && isSaid) out.hit += STEP_MS;
    else if (is) out.missed += STEP_MS;
    else if (isSaid) out.wrong += STEP_MS;
  }
  return out;
}

function compare(clip: KnownClip, watched: TakeAnalysis): Seen {
  const { repetitions, outOfFrame, still } = findingsIn(watched);
  const truth = clip.repetitions;
  const isWhole = repetitions.length === truth.length;
  const sides = { right: 0, wrong: 0, untold: 0 };
  if (isWhole)
    truth.forEach(({ side }, i) => {
      const told = repetitions[i]?.side ?? null;
      if (side === null) return;
      sides[told === side ? 'right' : told === null ? 'untold' : 'wrong'] += 1;
    });
  return {
    clip,
    counted: repetitions.length,
    isExact: repetitions.length >= clip.least && repetitions.length <= truth.length,
    isSure: repetitions.every(({ confidence }) => confidence >= SURE_REPETITION),
    isTimed: timesKnown(repetitions),
    times: isWhole
      ? repetitions.map(({ atMs, withinMs }, i) => ({
          errorMs: Math.abs(atMs - (truth[i]?.endMs ?? 0)),
          withinMs,
        }))
      : [],
    sides,
    out: outOf(clip, outOfFrame),
    edges: clip.active
      ? [
          Math.abs((still[0]?.endMs ?? 0) - clip.active.startMs),
          Math.abs((still.at(-1)?.startMs ?? clip.durationMs) - clip.active.endMs),
        ]
      : [],
  };
}

/** Wrong, or off by more than it says, without a word that it is not sure. */
const isSilent = ({ isExact, isSure, isTimed, times }: Seen) =>
  isSure &&
  (!isExact || (isTimed && times.some(({ errorMs, withinMs }) => errorMs > withinMs + SLACK_MS)));

function timesRow(set: string, seen: readonly Seen[]): Result {
  const timed = seen
    .filter(({ isTimed, isSure, times }) => isTimed && isSure && times.length > 0)
    .map(({ clip, times }) => ({ name: clip.name, ms: mean(times.map(({ errorMs }) => errorMs)) }));
  const worst = timed.reduce((most, one) => (one.ms > most.ms ? one : most), { name: '', ms: 0 });
  const average = mean(timed.map(({ ms }) => ms));
  return {
    what: `${set}: times of repetitions, where it says that it knows them`,
    value:
      `${timed.length} of ${seen.filter(({ times }) => times.length > 0).length} clips, ` +
      `${average.toFixed(0)} ms (mean), at most ${worst.ms.toFixed(0)} ms (${worst.name})`,
    limit: '80 ms on average, no clip over 200 ms',
    holds: average <= 80 && worst.ms <= 200,
  };
}

function outRow(set: string, seen: readonly Seen[]): Result {
  const sum = (key: keyof Seen['out']) => seen.reduce((all, { out }) => all + out[key], 0);
  const [hit, wrong, missed] = [sum('hit'), sum('wrong'), sum('missed')];
  const [recall, precision] = [share(hit, hit + missed), share(hit, hit + wrong)];
  return {
    what: `${set}: out of the picture, ${((hit + missed) / 1_000).toFixed(0)} s`,
    value: `recall ${recall.toFixed(2)}, precision ${precision.toFixed(2)}`,
    limit: '0.95 both',
    holds: recall >= 0.95 && precision >= 0.95,
  };
}

function rowsOf(set: string, seen: readonly Seen[], costs: number): Result[] {
  const told = ({ clip, counted, isSure }: Seen) =>
    `${clip.name} ${counted} for ${clip.repetitions.length}${isSure ? '' : ' (not sure)'}`;
  const wrong = seen.filter(({ isExact }) => !isExact);
  const silent = seen.filter(isSilent);
  const sides = (key: keyof Seen['sides']) => seen.reduce((sum, one) => sum + one.sides[key], 0);
  const edges = seen.flatMap((one) => one.edges);
  const near = share(edges.filter((ms) => ms <= 300).length, edges.length);
  const overOne = ({ counted, isSure, clip }: Seen) =>
    isSure && Math.abs(counted - clip.repetitions.length) > 1;
  const rows: Result[] = [
    {
      what: `${set}: counts of ${seen.length} clips`,
      value: `${seen.length - wrong.length} exact${wrong.length > 0 ? `; ${wrong.map(told).join(', ')}` : ''}`,
      limit: 'none off by more than one where it is sure',
      holds: !wrong.some(overOne),
    },
    timesRow(set, seen),
    {
      what: `${set}: silent errors`,
      value: `${silent.length}${silent.length > 0 ? `: ${silent.map(({ clip }) => clip.name).join(', ')}` : ''}`,
      limit: 'none',
      holds: silent.length === 0,
    },
    outRow(set, seen),
  ];
  if (sides('right') + sides('wrong') + sides('untold') > 0)
    rows.push({
      what: `${set}: sides`,
      value: `${sides('right')} right, ${sides('wrong')} wrong, ${sides('untold')} not told`,
      limit: 'one in ten wrong',
      holds: sides('wrong') <= 0.1 * (sides('right') + sides('wrong')),
    });
  if (edges.length > 0)
    rows.push({
      what: `${set}: still before and after`,
      value: `${(near * 100).toFixed(0)} % of ends within 0.3 s`,
      limit: 'at least 90 %',
      holds: near >= 0.9,
    });
  rows.push({
    what: `${set}: processor time to watch, by length`,
    value: costs.toFixed(2),
    limit: '0.6',
    holds: costs <= 0.6,
  });
  return rows;
}

/**
 * Counts, times, sides, frame and still ends of clips against their truth.
 * @param part one set, drawn or a folder of clips; all that are drawn if left out
 */
export async function* accuracy(part?: string): AsyncGenerator<Result> {
  for (const set of part ? [part] : drawnSets) {
    const seen: Seen[] = [];
    let [lengthMs, spentMs] = [0, 0];
    for (const clip of clipsOf(set)) {
      const file = await clip.file();
      let watched: TakeAnalysis | null = null;
      spentMs += await cpuOf(async () => {
        watched = await watchFile(file);
      });
      if (!watched) throw new Error(`${file} was not watched.`);
      lengthMs += clip.durationMs;
      seen.push(compare(clip, watched));
    }
    yield* rowsOf(set, seen, spentMs / lengthMs);
  }
}
