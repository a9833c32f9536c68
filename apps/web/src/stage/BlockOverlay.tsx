import { assemble, type Assembly, type TakeFacts } from '@zest/core/assembly';
import type { Block, Lesson } from '@zest/core/lesson';
import { forgetFitted, paintScene, sceneAt } from '@zest/core/overlay';
import { useEffect, useMemo, useRef } from 'react';
import { fitCanvas } from '../player/canvas.ts';
import { loadPaintFonts } from '../player/fonts.ts';

type Takes = ReadonlyMap<string, TakeFacts>;
const NO_TAKES: Takes = new Map();

/** The assembly of one block alone, its first moment at 0. */
export function useBlockCut(lesson: Lesson, block: Block, takes?: Takes): Assembly;
export function useBlockCut(lesson: Lesson, block: Block | null, takes?: Takes): Assembly | null;
export function useBlockCut(
  lesson: Lesson,
  block: Block | null,
  takes: Takes = NO_TAKES,
): Assembly | null {
  return useMemo(
    () =>
      block &&
      assemble({ ...lesson, sections: [{ id: 'only', title: '', blocks: [block] }] }, takes),
    [lesson, block, takes],
  );
}

interface BlockOverlayProps {
  /** The block alone. */
  cut: Assembly;
  /** Gives the moment of the block to show, read on every display frame; null for nothing. */
  momentMs: () => number | null;
  /** Time between two paintings; every display frame when left out. */
  everyMs?: number;
  /** With the card that stands where nothing is filmed. */
  withCard?: boolean;
}

/** The block's clock, counter and cues over a picture, at a moment somebody else decides. */
export function BlockOverlay({ cut, momentMs, everyMs = 0, withCard = false }: BlockOverlayProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const latest = useRef(momentMs);
  useEffect(() => {
    latest.current = momentMs;
  });
  useEffect(() => {
    let tick = 0;
    let paintedAt = -Infinity;
    /** The moment and the width that stand there; nothing: it has to be painted. */
    let painted: string | null = null;
    void loadPaintFonts().then(() => {
      forgetFitted();
      painted = null;
    });
    const paint = (now: number) => {
      tick = requestAnimationFrame(paint);
      if (now - paintedAt < everyMs) return;
      paintedAt = now;
      const element = canvas.current;
      const ctx = element?.getContext('2d');
      if (!element || !ctx) return;
      const width = fitCanvas(element, cut.shape);
      const ms = latest.current();
      const moment = ms === null || ms < 0 || ms >= cut.durationMs ? null : Math.floor(ms);
      const wanted = `${moment} ${width}`;
      if (painted === wanted) return;
      painted = wanted;
      if (moment === null) return ctx.clearRect(0, 0, element.width, element.height);
      const scene = sceneAt(cut, moment);
      paintScene(ctx, withCard ? scene : { ...scene, card: null, rising: null }, width);
    };
    tick = requestAnimationFrame(paint);
    return () => cancelAnimationFrame(tick);
  }, [cut, everyMs, withCard]);
  return <canvas ref={canvas} />;
}
