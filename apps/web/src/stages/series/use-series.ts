import type { StoredSeries } from '@zest/contract';
import { seriesSchema, type Series } from '@zest/core/lesson';
import { layOutWeeks, type SeriesWeek } from '@zest/core/schedule';
import { teacherText } from '@zest/core/words';
import { createNextState as produce } from '@reduxjs/toolkit';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { intentions } from '../../ui/intention.ts';
import { api, problemText } from '../../app/api.ts';

const PAUSE_MS = 700;
/** Changes that can be taken back. */
const MAX_PAST = 200;
/** The intention of a step nothing joins. */
const NONE = 0;

interface Held {
  series: Series;
  past: { label: string; intention: number; series: Series }[];
  future: Series[];
}

export type ChangeSeries = (label: string, recipe: (draft: Series) => void) => void;

export interface OpenSeries {
  series: Series;
  /** Its weeks; null while it cannot be laid out, which `fault` then says. */
  weeks: SeriesWeek[] | null;
  fault: string | null;
  /** The series as it last was in order, with its weeks. */
  inOrder: { series: Series; weeks: SeriesWeek[] };
  /** How it stands to the server, in words. */
  /** Why it is not saved; null: it is, or is being saved. */
  saveFault: string | null;
  isSaved: boolean;
  change: ChangeSeries;
  undo: (() => void) | null;
  redo: (() => void) | null;
}

function check(series: Series): { weeks: SeriesWeek[] | null; fault: string | null } {
  const read = seriesSchema.safeParse(series);
  if (!read.success)
    return {
      weeks: null,
      fault: read.error.issues[0]?.message ?? teacherText('series.something-series-not-order'),
    };
  try {
    return { weeks: layOutWeeks(series), fault: null };
  } catch (error) {
    return { weeks: null, fault: error instanceof Error ? error.message : String(error) };
  }
}

/**
 * A series being changed: every change can be taken back, and is saved after a pause while all is
 * in order.
 */
export function useOpenSeries({ id, revision, series: stored }: StoredSeries): OpenSeries {
  const [held, setHeld] = useState<Held>({ series: stored, past: [], future: [] });
  const [save] = api.useSaveSeriesMutation();
  const [problem, setProblem] = useState<string | null>(null);
  const [savedSeries, setSaved] = useState(stored);
  const { series, past, future } = held;
  const { weeks, fault } = useMemo(() => check(series), [series]);
  const [inOrder, setInOrder] = useState({ series, weeks: weeks ?? [] });
  if (weeks !== null && inOrder.weeks !== weeks) setInOrder({ series, weeks });
  const newest = useRef({ series, fault });
  const onServer = useRef({ series: stored, revision });
  const saving = useRef<Promise<void>>(Promise.resolve());

  // One save after the other, each with the newest there is then.
  const flush = useCallback(() => {
    saving.current = saving.current.then(async () => {
      const { series: now, fault: bad } = newest.current;
      if (bad !== null || now === onServer.current.series) return;
      const result = await save({
        seriesId: id,
        baseRevision: onServer.current.revision,
        series: now,
      });
      if (result.data) {
        onServer.current = { series: now, revision: result.data.revision };
        setSaved(now);
        setProblem(null);
      } else setProblem(problemText(result.error));
    });
  }, [id, save]);
  useEffect(() => {
    newest.current = { series, fault };
    const timer = setTimeout(flush, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [series, fault, flush]);
  // Left or closed in mid-typing, the page saves what was typed.
  useEffect(() => {
    window.addEventListener('pagehide', flush);
    return () => {
      window.removeEventListener('pagehide', flush);
      flush();
    };
  }, [flush]);

  // The same for the whole life of the page, so that a row is drawn anew only for its own change.
  const change = useCallback<ChangeSeries>((label, recipe) => {
    const intention = intentions.current();
    setHeld((now) => {
      const next = produce(now.series, recipe);
      if (next === now.series) return now;
      const isSame = now.past.at(-1)?.intention === intention && now.future.length === 0;
      return {
        series: next,
        past: isSame
          ? now.past
          : [...now.past, { label, intention, series: now.series }].slice(-MAX_PAST),
        future: [],
      };
    });
  }, []);

  return {
    series,
    weeks,
    fault,
    inOrder,
    saveFault: fault !== null ? teacherText('series.not-saved') : problem,
    isSaved: series === savedSeries,
    change,
    undo:
      past.length === 0
        ? null
        : () =>
            setHeld((now) => ({
              series: now.past.at(-1)?.series ?? now.series,
              past: now.past.slice(0, -1),
              future: [...now.future, now.series],
            })),
    redo:
      future.length === 0
        ? null
        : () =>
            setHeld((now) => ({
              series: now.future.at(-1) ?? now.series,
              past: [...now.past, { label: 'redo', intention: NONE, series: now.series }],
              future: now.future.slice(0, -1),
            })),
  };
}
