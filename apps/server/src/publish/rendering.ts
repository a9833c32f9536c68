import { readdir } from 'node:fs/promises';
import path from 'node:path';
import type { TakePath } from '../media/store.ts';
import type { Piece, RenderSettings } from './pieces.ts';
import { AT_ONCE } from './render.ts';
import { askForHelp, helpOut, renderShared } from './shared-pieces.ts';

/** An export's pieces, and how they are rendered. */
export interface RenderOrder {
  pieces: readonly Piece[];
  settings: RenderSettings;
  /** Other work that is being done, in the place of one encoder. */
  beside: Promise<unknown>;
  /** Told how much of a piece is done, in milliseconds. */
  onPiece: (piece: Piece, doneMs: number) => void;
  signal?: AbortSignal | undefined;
  /** The job that wants them; null: none. */
  exportId: string | null;
}

/** How the pieces of exports are shared among workers. */
export interface Rendering {
  /** Those of these files of parts that need not be rendered. */
  kept(files: readonly string[]): Promise<ReadonlySet<string>>;
  /** Renders pieces, with whoever helps. */
  renderAll(order: RenderOrder): Promise<void>;
  /** Brings files of parts that others rendered to where they are named. */
  gather(files: readonly string[]): Promise<void>;
  /** With nothing else to do: renders a piece of another one's export. @returns whether there was one */
  help(signal: AbortSignal): Promise<boolean>;
}

/** Several loops over the same work; the first one waits for what is done in its place. */
export const sideBySide = (beside: Promise<unknown>, loop: () => Promise<void>): Promise<unknown> =>
  Promise.all(Array.from({ length: AT_ONCE }, (_, i) => (i === 0 ? beside.then(loop) : loop())));

/** Which of these files a folder holds. */
export async function filesIn(
  folder: string,
  files: readonly string[],
): Promise<ReadonlySet<string>> {
  const names = new Set(await readdir(folder));
  return new Set(files.filter((file) => names.has(path.basename(file))));
}

/** Among the workers that share a folder: they tell each other by files in it. */
export const folderRendering = (cacheDir: string, takePath: TakePath): Rendering => ({
  kept: (files) => filesIn(cacheDir, files),
  async renderAll({ pieces, settings, beside, onPiece, signal }) {
    const waiting = [...pieces];
    const helped = await askForHelp({ settings, pieces: [...pieces] }, cacheDir);
    try {
      await sideBySide(beside, async () => {
        for (let piece = waiting.shift(); piece; piece = waiting.shift()) {
          const now = piece;
          const onProgress = (doneMs: number) => onPiece(now, doneMs);
          onPiece(now, 0);
          await renderShared(now, settings, cacheDir, takePath, onProgress, signal);
          onPiece(now, Infinity);
        }
      });
    } finally {
      await helped();
    }
  },
  gather: () => Promise.resolve(),
  help: (signal) => helpOut(cacheDir, takePath, signal),
});
