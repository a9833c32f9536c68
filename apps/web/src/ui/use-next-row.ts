import { useEffect, useRef, type RefObject } from 'react';

/**
 * Has the keyboard go to the first field of a row that was asked for, once it is there. Rows are the
 * children of the place that have a field.
 */
export function useNextRow(count: number): {
  place: RefObject<HTMLDivElement | null>;
  /** The next row that comes is gone to. */
  expect: () => void;
} {
  const place = useRef<HTMLDivElement>(null);
  const expected = useRef<number | null>(null);
  useEffect(() => {
    if (expected.current === null || count <= expected.current) return;
    expected.current = null;
    const rows = [...(place.current?.children ?? [])].filter((row) => row.querySelector('input'));
    rows.at(-1)?.querySelector('input')?.focus();
  }, [count]);
  return { place, expect: () => void (expected.current = count) };
}
