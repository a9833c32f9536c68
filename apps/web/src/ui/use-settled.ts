import { useEffect, useState } from 'react';
import { isTyping } from './typing.ts';

/** A pause between keys this long counts as one: quick typing has gaps well below. */
const PAUSE_MS = 180;

/** A value as it is; while text is typed, as it was at the last pause between keys. */
export function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value);
  const wait = settled !== value && isTyping(document.activeElement);
  useEffect(() => {
    if (settled === value) return;
    const timer = setTimeout(() => setSettled(value), wait ? PAUSE_MS : 0);
    return () => clearTimeout(timer);
  }, [settled, value, wait]);
  return wait ? settled : value;
}
