import { open, readdir, readFile, rename, rm, stat, utimes, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { nanoid } from 'nanoid';
import { CancelledError } from '../media/run.ts';
import type { TakePath } from '../media/store.ts';
import { claimOf, isWanted, wantedName } from '../media/unfinished.ts';
import type { Piece, RenderSettings } from './pieces.ts';
import { isRendered, renderPiece } from './render.ts';

/** Whoever works on something says so this often; who has not for so long is gone. */
const BEAT_MS = 3_000;
const GONE_MS = 15_000;
const LOOK_AGAIN_MS = 250;

const isFresh = async (file: string): Promise<boolean> => {
  const known = await stat(file).catch(() => null);
  return known !== null && Date.now() - known.mtimeMs < GONE_MS;
};

/** Keeps a file's time new until it is stopped. */
function keepFresh(file: string): () => void {
  const beat = setInterval(
    () => void utimes(file, new Date(), new Date()).catch(() => undefined),
    BEAT_MS,
  );
  return () => clearInterval(beat);
}

/** Makes a file that says "mine"; false when somebody who still works has it. */
async function claim(file: string): Promise<boolean> {
  const mine = await open(file, 'wx').catch(() => null);
  if (mine) {
    await mine.writeFile(String(process.pid));
    await mine.close();
    return true;
  }
  if (await isFresh(file)) return false;
  // Who had it is gone. Only one of those who find out takes it over.
  const old = `${file}.${nanoid(6)}`;
  const won = await rename(file, old).then(
    () => true,
    () => false,
  );
  if (won) await rm(old, { force: true });
  return won ? claim(file) : false;
}

/** Renders a piece unless another worker is at it. @returns whether it is rendered */
async function renderMine(
  piece: Piece,
  settings: RenderSettings,
  cacheDir: string,
  takePath: TakePath,
  onProgress: (doneMs: number) => void,
  signal?: AbortSignal,
): Promise<boolean> {
  if (await isRendered(piece, settings, cacheDir)) return true;
  const mine = claimOf(cacheDir, piece);
  if (!(await claim(mine))) return false;
  const stop = keepFresh(mine);
  try {
    await renderPiece(piece, settings, cacheDir, takePath, onProgress, signal);
    return true;
  } finally {
    stop();
    await rm(mine, { force: true });
  }
}

/** Renders a piece, or waits for the worker that is at it; takes it over when that one is gone. */
export async function renderShared(
  piece: Piece,
  settings: RenderSettings,
  cacheDir: string,
  takePath: TakePath,
  onProgress: (doneMs: number) => void,
  signal?: AbortSignal,
): Promise<void> {
  while (!(await renderMine(piece, settings, cacheDir, takePath, onProgress, signal))) {
    await sleep(LOOK_AGAIN_MS);
    if (signal?.aborted) throw new CancelledError('Cancelled.');
  }
}

interface Wanted {
  settings: RenderSettings;
  pieces: Piece[];
}

/** Lays out what an export needs, so that idle workers can help. @returns what ends it */
export async function askForHelp(wanted: Wanted, cacheDir: string): Promise<() => Promise<void>> {
  const list = path.join(cacheDir, wantedName());
  await writeFile(list, JSON.stringify(wanted));
  const stop = keepFresh(list);
  return async () => {
    stop();
    await rm(list, { force: true });
  };
}

/**
 * Renders one piece of an export that another worker has begun, from its end on.
 * @returns whether there was one
 */
export async function helpOut(
  cacheDir: string,
  takePath: TakePath,
  signal: AbortSignal,
): Promise<boolean> {
  for (const name of await readdir(cacheDir).catch(() => [])) {
    const list = path.join(cacheDir, name);
    if (!isWanted(name) || !(await isFresh(list))) continue;
    const text = await readFile(list, 'utf8').catch(() => null);
    if (text === null) continue;
    // Written by another worker of this installation, of the same version.
    const { settings, pieces } = JSON.parse(text) as Wanted;
    for (const piece of pieces.reverse()) {
      if (await isRendered(piece, settings, cacheDir)) continue;
      if (await renderMine(piece, settings, cacheDir, takePath, () => undefined, signal))
        return true;
    }
  }
  return false;
}
