import { greyCells, type Picture } from './picture.ts';

/**
 * Parts of the picture that are watched, each a twelfth: more than the quarter of a central field
 * that counts.
 */
const PARTS = { columns: 4, rows: 3 } as const;
/**
 * WCAG 2.2, "general flash": opposing changes of a tenth of the greatest relative luminance, the
 * darker state below 0.80.
 */
const CHANGE = 0.1;
const DARKER = 0.8;
/** More than three flashes a second; a flash is a pair of changes. */
const MOST_CHANGES = 6;
const WITHIN_MS = 1_000;

/** Relative luminance of a grey level, as sRGB has it. */
const luminance = (level: number) =>
  level <= 10 ? level / 255 / 12.92 : ((level / 255 + 0.055) / 1.055) ** 2.4;

/** Counts flashes in pictures that come one after the other. Source: WCAG 2.2, 2.3.1. */
export class FlashWatch {
  readonly #parts = Array.from({ length: PARTS.columns * PARTS.rows }, () => ({
    turned: null as number | null,
    rising: null as boolean | null,
    changes: [] as number[],
  }));
  readonly #found: { startMs: number; endMs: number }[] = [];

  /** @param atMs its time; times go up */
  add(picture: Picture, atMs: number): void {
    const levels = greyCells(picture, PARTS.columns, PARTS.rows);
    for (const [p, part] of this.#parts.entries()) {
      const now = luminance(levels[p] as number);
      const before = part.turned ?? now;
      part.turned = before;
      const goesOn = part.rising !== null && (part.rising ? now > before : now < before);
      if (goesOn) part.turned = now;
      else if (Math.abs(now - before) >= CHANGE && Math.min(now, before) < DARKER) {
        part.rising = now > before;
        part.turned = now;
        part.changes = [...part.changes.filter((ms) => atMs - ms < WITHIN_MS - 1), atMs];
        if (part.changes.length > MOST_CHANGES) this.#add(part.changes[0] ?? atMs, atMs);
      }
    }
  }

  #add(startMs: number, endMs: number): void {
    const last = this.#found.at(-1);
    if (last && startMs <= last.endMs) last.endMs = Math.max(last.endMs, endMs);
    else this.#found.push({ startMs, endMs });
  }

  /** Stretches with more than three flashes in a second. */
  get found(): readonly { startMs: number; endMs: number }[] {
    return this.#found;
  }
}
