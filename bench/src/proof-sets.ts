import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { filmClip } from '@zest/demo/proof';
import { proofClips, type exercises, truthOf, type ProofClip } from '@zest/performer/proof';

interface Span {
  startMs: number;
  endMs: number;
}

/** A clip whose truth is known. */
export interface KnownClip {
  name: string;
  file: () => Promise<string>;
  durationMs: number;
  repetitions: { endMs: number; side: 'left' | 'right' | null }[];
  /** Those done in the picture, where some are not: any number between is right. */
  least: number;
  outOfFrame: Span[];
  /** From the first to the last movement; null where that is not known. */
  active: Span | null;
}

/** What is drawn, in sets that each take some minutes. */
const DRAWN: Record<string, readonly (typeof exercises)[number][]> = {
  standing: ['squat', 'side-lunge', 'knee-lift', 'step-and-reach'],
  jumping: ['skip-rope', 'star-jump', 'bounce'],
  arms: ['overhead-reach', 'arm-circle', 'disc-throw'],
  'seated and lying': ['seated-pull', 'sit-to-stand', 'bridge', 'push-up'],
  'without repetitions': ['one-leg-balance', 'talk'],
};
export const drawnSets = Object.keys(DRAWN);
/** Clips of the same kinds that nothing was made by: `held back: standing`. */
const HELD_BACK = 'held back: ';
export const heldBackSets = drawnSets.map((set) => `${HELD_BACK}${set}`);

/** Clips are drawn once; they are the same every time. */
const folder = path.join(os.tmpdir(), 'zest-proof');

async function drawnFile(clip: ProofClip): Promise<string> {
  mkdirSync(folder, { recursive: true });
  const file = path.join(folder, `${clip.name}.mp4`);
  if (!existsSync(file)) {
    await filmClip(clip, `${file}.part.mp4`);
    renameSync(`${file}.part.mp4`, file);
  }
  return file;
}

function drawn(clip: ProofClip): KnownClip {
  const { durationMs, repetitions, outOfFrame, activeMs } = truthOf(clip);
  return {
    name: clip.name,
    file: () => drawnFile(clip),
    durationMs,
    repetitions,
    least: repetitions.length,
    outOfFrame,
    // Whoever only balances or talks has no dead head to find.
    active: repetitions.length > 0 ? activeMs : null,
  };
}

/** What lies beside a clip in a folder, in seconds. */
interface FiledTruth {
  file: string;
  duration: number;
  reps: { t: number; visible?: boolean; side?: 'left' | 'right' }[];
  outOfFrame: { start: number; end: number }[];
}

function filmed(from: string, name: string): KnownClip {
  const truth = JSON.parse(readFileSync(path.join(from, name), 'utf8')) as FiledTruth;
  return {
    name: name.replace('.truth.json', ''),
    file: () => Promise.resolve(path.join(from, truth.file)),
    durationMs: truth.duration * 1_000,
    repetitions: truth.reps.map(({ t, side }) => ({ endMs: t * 1_000, side: side ?? null })),
    least: truth.reps.filter(({ visible }) => visible !== false).length,
    outOfFrame: truth.outOfFrame.map(({ start, end }) => ({
      startMs: start * 1_000,
      endMs: end * 1_000,
    })),
    active: null,
  };
}

/**
 * The clips of a set: one that is drawn, or a folder in which each clip has its truth beside it.
 * @throws Error when there is no such set
 */
export function clipsOf(set: string): KnownClip[] {
  const isHeldBack = set.startsWith(HELD_BACK);
  const exercises = DRAWN[set.replace(HELD_BACK, '')];
  if (exercises)
    return proofClips(isHeldBack ? 1 : 0)
      .filter(({ exercise }) => exercises.includes(exercise))
      .map(drawn);
  const names = existsSync(set)
    ? readdirSync(set).filter((name) => name.endsWith('.truth.json'))
    : [];
  if (names.length === 0)
    throw new Error(
      `No set "${set}": say one of ${[...drawnSets, ...heldBackSets].join(', ')}, or a folder with *.truth.json.`,
    );
  return names.map((name) => filmed(set, name));
}
