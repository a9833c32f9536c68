import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { FollowLesson, FollowTake } from '@zest/contract';
import { AS_FILMED, bytesAt, sizeFor, sizesOf, smallerThan, versionAt } from './footage.ts';
import { keepLine, readLine, type Choices } from './device.ts';
import {
  canKeep,
  dropOthers,
  isKept,
  keepFootage,
  keepPage,
  measureLine,
  underControl,
  type Keepable,
} from './keep.ts';
import type { LessonSource } from './source.ts';

/** Up to this size footage is kept without being asked for, where data is not to be saved. */
const SMALL_BYTES = 60e6;
const NONE: FollowTake[] = [];
/**
 * Told apart from the same address asked for before the worker answered, so that the video is asked
 * for anew.
 */
const BY_WORKER = '#kept';

const savesData = () =>
  (navigator as { connection?: { saveData?: boolean } }).connection?.saveData === true;

export type Keeping =
  | { kind: 'off'; bytes: number; start: () => void }
  | { kind: 'loading'; done: number; of: number }
  | { kind: 'kept' }
  | { kind: 'fault' }
  | { kind: 'none' };

export interface Footage {
  takeUrl: (takeId: string) => string;
  /** Lines the picture can be had at. */
  sizes: number[];
  takes: readonly FollowTake[];
  keeping: Keeping;
  /** The line does not keep up: a smaller picture is shown from now on, if there is one. */
  slower: () => void;
}

interface KeptSize {
  code: string | null;
  lesson: FollowLesson | null;
  sizes: readonly number[];
  keepable: (at: number) => Keepable[];
  isPlaying: boolean;
  setLine: (kbit: number) => void;
}

/**
 * The size all of the footage is kept at: null where none is, undefined until that is known. Where
 * none is, the line is measured, by bytes that are needed anyway.
 */
function useKeptSize({ code, lesson, sizes, keepable, isPlaying, setLine }: KeptSize) {
  const [keptAt, setKeptAt] = useState<number | null | undefined>(undefined);
  const [isMeasured, setMeasured] = useState(false);
  const started = useRef(isPlaying);
  useEffect(() => {
    started.current = isPlaying;
  });
  useEffect(() => {
    if (code === null || lesson === null) return;
    let gone = false;
    const look = async () => {
      if (canKeep() && lesson.takes.length > 0) {
        for (const size of sizes.toReversed()) {
          const all = await Promise.all(keepable(size).map(isKept));
          if (gone) return;
          if (all.every(Boolean)) return setKeptAt(size);
        }
        setKeptAt(null);
        // By way of the worker, what is measured by is kept.
        await underControl();
      }
      const first = keepable(sizes[0] ?? AS_FILMED)[0];
      const kbit = first && sizes.length > 1 ? await measureLine(first.url) : null;
      if (gone || kbit === null) return;
      keepLine(kbit);
      // A picture that runs is not changed.
      if (!started.current) setLine(kbit);
    };
    look()
      .catch(() => undefined)
      .finally(() => gone || setMeasured(true));
    return () => {
      gone = true;
    };
  }, [code, lesson, sizes, keepable, setLine]);

  return { keptAt, isMeasured };
}

/**
 * Which version of the footage is played, by what the line carries, and how much of it is kept on
 * the device.
 */
export function useFootage(
  source: LessonSource,
  lesson: FollowLesson | null,
  wanted: Choices['picture'],
  isPlaying: boolean,
): Footage {
  const takes = lesson?.takes ?? NONE;
  const { code } = source;
  const [line, setLine] = useState(readLine);
  const [most, setMost] = useState(AS_FILMED);
  const [isWanted, setWanted] = useState(false);
  /** What is asked for from now on goes through the worker, and is kept. */
  const [byWorker, setByWorker] = useState(false);
  const [progress, setProgress] = useState<
    Extract<Keeping, { kind: 'loading' | 'kept' | 'fault' | 'none' }>
  >({ kind: 'none' });
  const sizes = useMemo(() => sizesOf(takes), [takes]);
  const keepable = useMemo(
    () =>
      (at: number): Keepable[] =>
        takes.map((take) => ({
          url: source.takeUrl(take, versionAt(take, at)),
          bytes: (versionAt(take, at) ?? take).bytes,
        })),
    [takes, source],
  );
  const { keptAt, isMeasured } = useKeptSize({ code, lesson, sizes, keepable, isPlaying, setLine });
  const asked = wanted === 'filmed' ? AS_FILMED : wanted;
  const isAuto = asked === 'auto' || !sizes.includes(asked);
  const lines = isAuto
    ? (keptAt ?? Math.min(most, sizeFor(takes, savesData() ? null : line)))
    : asked;
  const bytes = bytesAt(takes, lines);
  const isOn =
    code !== null &&
    canKeep() &&
    lesson !== null &&
    (isWanted || (bytes <= SMALL_BYTES && !savesData()));

  useEffect(() => {
    if (code !== null && canKeep())
      void underControl().then(
        () => setByWorker(true),
        () => undefined,
      );
  }, [code]);

  useEffect(() => {
    if (!isOn || !isMeasured || code === null) return;
    let gone = false;
    const load = async () => {
      await keepPage(code);
      const wantedFiles = keepable(lines);
      for (const [done, one] of wantedFiles.entries()) {
        if (gone) return;
        setProgress({ kind: 'loading', done, of: wantedFiles.length });
        await keepFootage(one, () => gone);
      }
      if (gone) return;
      setProgress({ kind: 'kept' });
      await dropOthers(wantedFiles);
    };
    load().catch(() => gone || setProgress({ kind: 'fault' }));
    return () => {
      gone = true;
    };
  }, [isOn, isMeasured, code, keepable, lines]);

  const takeUrl = useCallback(
    (takeId: string) => {
      const take = takes.find(({ id }) => id === takeId);
      return take ? source.takeUrl(take, versionAt(take, lines)) + (byWorker ? BY_WORKER : '') : '';
    },
    [takes, source, lines, byWorker],
  );
  const slower = useCallback(() => {
    if (isAuto && keptAt !== lines) setMost(smallerThan(takes, lines));
  }, [takes, lines, isAuto, keptAt]);
  const keeping: Keeping =
    code === null || !canKeep() || lesson === null
      ? { kind: 'none' }
      : isOn
        ? progress
        : { kind: 'off', bytes, start: () => setWanted(true) };
  return { takeUrl, sizes, takes, keeping, slower };
}
