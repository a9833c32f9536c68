/** Where somebody was in a video of that length, in milliseconds. */
export interface Place {
  atMs: number;
  totalMs: number;
}

/** Keeps the place over a reload and to another day. */
export interface KeepsPlace {
  read: () => Place | null;
  /** Null at the end: the next time begins anew. */
  keep: (place: Place | null) => void;
}

/** Nearer to either end than this nobody was in the middle. */
const NEAR_END_MS = 5_000;

export const isMiddle = ({ atMs, totalMs }: Place): boolean =>
  atMs >= NEAR_END_MS && atMs <= totalMs - NEAR_END_MS;
