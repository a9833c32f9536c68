import { useEffect, useRef, type KeyboardEvent } from 'react';
import { isTyping } from '../../../ui/typing.ts';
import { useBlockActions } from '../block-actions.ts';
import { useSelection } from '../selection.ts';

/** Marks the head of a block and the button in it that opens the block. */
export const HEAD = 'data-block-head';
export const OPENER = 'data-block-open';

const heads = () => [...document.querySelectorAll<HTMLElement>(`[${HEAD}]`)];
const headAt = (target: EventTarget | null) =>
  target instanceof HTMLElement ? target.closest<HTMLElement>(`[${HEAD}]`) : null;
const focusHead = (head: HTMLElement | undefined) =>
  head?.querySelector<HTMLElement>(`[${OPENER}]`)?.focus();

/** Whether a key press belongs to blocks: not to a text being typed or marked. */
function isForBlocks(event: Event): boolean {
  return !isTyping(event.target) && (document.getSelection()?.isCollapsed ?? true);
}

/**
 * The keys of blocks: between them, choosing, moving, removing; and copy, cut and paste anywhere on
 * the bench.
 */
export function useBlockKeys(): (event: KeyboardEvent) => void {
  const actions = useBlockActions();
  const { ids, toggle, reach, set } = useSelection();
  /** What a key is for: the chosen blocks if the one in focus is among them, or that one alone. */
  const meant = (head: HTMLElement | null): ReadonlySet<string> | undefined => {
    const id = head?.getAttribute(HEAD);
    return id && !ids.has(id) ? new Set([id]) : undefined;
  };
  const latest = useRef({ actions, meant });
  useEffect(() => {
    latest.current = { actions, meant };
  });
  useEffect(() => {
    const take = (event: ClipboardEvent) => {
      const { actions: now, meant: of } = latest.current;
      if (!isForBlocks(event) || now.count === 0) return;
      const blocks = of(headAt(document.activeElement));
      event.preventDefault();
      event.clipboardData?.setData('text/plain', now.copy(blocks));
      if (event.type === 'cut') now.remove(blocks);
    };
    const put = (event: ClipboardEvent) => {
      const text = event.clipboardData?.getData('text/plain');
      if (!isForBlocks(event) || text === undefined) return;
      event.preventDefault();
      latest.current.actions.paste(text);
    };
    document.addEventListener('copy', take);
    document.addEventListener('cut', take);
    document.addEventListener('paste', put);
    return () => {
      document.removeEventListener('copy', take);
      document.removeEventListener('cut', take);
      document.removeEventListener('paste', put);
    };
  }, []);

  return (event) => {
    const head = headAt(event.target);
    const id = head?.getAttribute(HEAD);
    // On the grip, arrows carry the block.
    if (
      !head ||
      !id ||
      event.ctrlKey ||
      event.metaKey ||
      (event.target as HTMLElement).closest('[data-grip]')
    )
      return;
    const all = heads();
    const step = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
    if (step !== 0 && event.altKey) {
      actions.move(step, meant(head));
      // The block keeps the focus where it goes.
      requestAnimationFrame(() => focusHead(heads().find((one) => one.getAttribute(HEAD) === id)));
    } else if (step !== 0) {
      const next = all[all.indexOf(head) + step];
      const nextId = next?.getAttribute(HEAD);
      focusHead(next);
      if (event.shiftKey && nextId) reach(nextId, id);
    } else if (event.key.toLowerCase() === 's') toggle(id);
    else if (event.key === 'Delete') {
      actions.remove(meant(head));
      focusHead(all[all.indexOf(head) + 1] ?? all[all.indexOf(head) - 1]);
    } else if (event.key === 'Escape') set([]);
    else return;
    event.preventDefault();
  };
}
