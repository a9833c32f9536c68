import { measurer, type Measure } from '@zest/core/overlay';
import { useEffect, useState } from 'react';
import { loadPaintFonts } from '../player/fonts.ts';

/** Measures bold text as the painter sets it; null until its fonts are there. */
export function useTextMeasure(): Measure | null {
  const [measure, setMeasure] = useState<Measure | null>(null);
  useEffect(() => {
    let left = false;
    void loadPaintFonts().then(() => {
      const ctx = document.createElement('canvas').getContext('2d');
      if (!left && ctx) setMeasure(() => measurer(ctx, 'bold'));
    });
    return () => {
      left = true;
    };
  }, []);
  return measure;
}
