import { createContext, useContext, useState, type KeyboardEvent } from 'react';

/**
 * Whether the fields here change the lesson, so that undo in them is the lesson's and not the
 * browser's own.
 */
export const UndoOfLesson = createContext(false);

/** Marks the input of such a field for whoever listens to the undo keys. */
const UNDO_OF_LESSON = 'data-undo-of-lesson';
export const useUndoMark = (): Record<string, string> => {
  const marked: Record<string, string> = { [UNDO_OF_LESSON]: '' };
  return useContext(UndoOfLesson) ? marked : {};
};
export const isUndoOfLesson = (target: EventTarget | null): boolean =>
  target instanceof Element && target.closest(`[${UNDO_OF_LESSON}]`) !== null;

interface Typed<T> {
  text: string;
  /** What the text was last stored as. */
  stored: T;
  /** What was there when the typing began. */
  before: T;
}

interface Draft<T> {
  /** What is being typed; null while the field shows what is stored. */
  text: string | null;
  /** Takes a text: stored as `value`, or as what was there before where it cannot be read. */
  type: (text: string, value: T | null) => void;
  /** Ends the typing: the field shows what is stored. */
  settle: () => void;
  /** Ends it, and brings back what was there before. */
  cancel: () => void;
}

/**
 * What is typed into a field, beside what is stored of it: every readable text is stored at once,
 * and what changes meanwhile by another hand (undo, another window) is shown. `value` is what is
 * stored at this very moment, never an older state.
 */
export function useDraft<T>(value: T, onChange: (value: T) => void): Draft<T> {
  const [typed, setTyped] = useState<Typed<T> | null>(null);
  const current = typed !== null && typed.stored === value ? typed : null;
  if (typed !== null && current === null) setTyped(null);
  const store = (next: T) => {
    if (next !== value) onChange(next);
  };
  return {
    text: current?.text ?? null,
    type: (text, next) => {
      const before = current ? current.before : value;
      const stored = next ?? before;
      setTyped({ text, stored, before });
      store(stored);
    },
    settle: () => setTyped(null),
    cancel: () => {
      setTyped(null);
      if (current) store(current.before);
    },
  };
}

export const isUndoKey = (event: KeyboardEvent): boolean =>
  (event.ctrlKey || event.metaKey) && !event.shiftKey && event.key.toLowerCase() === 'z';
