import { isTyping } from './typing.ts';

/** A pause this long between two changes begins a new intention. */
const INTENTION_PAUSE_MS = 2_000;

/** What ends a sentence before the next one begins. */
const SENTENCE_END = /[.!?…؟。]["”’)]*\s+$/u;

/** A place no caret is at. */
const NOWHERE = -1;

type TextField = HTMLInputElement | HTMLTextAreaElement;
const isTextField = (target: EventTarget | null): target is TextField =>
  target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement;

/**
 * Where text is put in next: what stands before the caret, how far in, and whether all of it is
 * marked.
 */
interface Caret {
  before: string;
  at: number;
  isWholeMarked: boolean;
}

function caretOf(target: EventTarget | null): Caret | null {
  if (isTextField(target)) {
    // Some kinds of input (colour, date) have no caret.
    if (target.selectionStart === null) return null;
    const { value, selectionStart: from, selectionEnd } = target;
    return {
      before: value.slice(0, from),
      at: from,
      isWholeMarked: value !== '' && from === 0 && selectionEnd === value.length,
    };
  }
  const selection = document.getSelection();
  if (!selection?.anchorNode || !(target instanceof Node) || !target.contains(selection.anchorNode))
    return null;
  const range = document.createRange();
  range.selectNodeContents(target);
  const all = range.toString();
  const marked = selection.getRangeAt(0);
  range.setEnd(marked.startContainer, marked.startOffset);
  const before = range.toString();
  return { before, at: before.length, isWholeMarked: all !== '' && marked.toString() === all };
}

/**
 * Tells one intention of a hand from the next, so that each is one step to undo: a figure set, a
 * sentence typed. A new one begins with another field, a pause, a press of the pointer or Enter,
 * another place in the text, a new sentence, and when all of a text is replaced.
 */
export class Intentions {
  #current = 1;
  #lastMs = 0;
  #caretAt: number | null = null;

  constructor(private readonly now: () => number) {}

  /** The intention a change belongs to that is made at this moment. */
  current(): number {
    const ms = this.now();
    if (ms - this.#lastMs >= INTENTION_PAUSE_MS) this.next();
    this.#lastMs = ms;
    return this.#current;
  }

  next(): void {
    this.#current += 1;
    this.#caretAt = null;
  }

  /** Watches what is done on a page; gives what ends it. */
  watch(page: Document): () => void {
    const next = () => this.next();
    // A button pressed by key is pressed anew each time.
    const onKey = (event: KeyboardEvent) =>
      (event.key === 'Enter' || (event.key === ' ' && !isTyping(event.target))) && this.next();
    const onBeforeInput = (event: InputEvent) => {
      const caret = caretOf(event.target);
      if (!caret) return;
      const isElsewhere = this.#caretAt !== null && caret.at !== this.#caretAt;
      const isPasted =
        event.inputType.startsWith('insertFrom') || event.inputType === 'deleteByCut';
      const isSentence =
        event.inputType === 'insertText' &&
        event.data?.trim() !== '' &&
        SENTENCE_END.test(caret.before);
      if (isElsewhere || isPasted || isSentence || caret.isWholeMarked) this.next();
    };
    const onInput = (event: Event) => {
      // What is typed after something was pasted is another matter.
      const isTyped =
        event instanceof InputEvent &&
        /^(insertText|insertComposition|insertReplacement|deleteContent)/.test(event.inputType);
      this.#caretAt = isTyped ? (caretOf(event.target)?.at ?? null) : NOWHERE;
    };
    const seen = { capture: true, passive: true };
    page.addEventListener('focusin', next, seen);
    page.addEventListener('pointerdown', next, seen);
    page.addEventListener('keydown', onKey, seen);
    page.addEventListener('beforeinput', onBeforeInput, seen);
    page.addEventListener('input', onInput, seen);
    return () => {
      page.removeEventListener('focusin', next, seen);
      page.removeEventListener('pointerdown', next, seen);
      page.removeEventListener('keydown', onKey, seen);
      page.removeEventListener('beforeinput', onBeforeInput, seen);
      page.removeEventListener('input', onInput, seen);
    };
  }
}

/** The intentions of this window. */
export const intentions = new Intentions(() => performance.now());
