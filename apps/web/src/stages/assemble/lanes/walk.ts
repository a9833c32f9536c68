import type { KeyboardEvent } from 'react';

const middleOf = (item: Element) => {
  const { left, width } = item.getBoundingClientRect();
  return left + width / 2;
};

/** Arrow keys go from item to item of a lane, and to the nearest in the lane above or below. */
export function walkLanes(event: KeyboardEvent<HTMLElement>): void {
  if (event.altKey || event.ctrlKey || event.metaKey) return;
  const item = event.target instanceof Element ? event.target.closest('.lane-item') : null;
  const track = item?.parentElement;
  if (!item || !track) return;
  const tracks = [...event.currentTarget.querySelectorAll('.lane-track:not(.is-folded)')];
  const nearest = (by: -1 | 1) => {
    const items = [...(tracks[tracks.indexOf(track) + by]?.querySelectorAll('.lane-item') ?? [])];
    const from = middleOf(item);
    return items.sort((a, b) => Math.abs(middleOf(a) - from) - Math.abs(middleOf(b) - from))[0];
  };
  const goals: Record<string, () => Element | null | undefined> = {
    ArrowLeft: () => item.previousElementSibling,
    ArrowRight: () => item.nextElementSibling,
    ArrowUp: () => nearest(-1),
    ArrowDown: () => nearest(1),
  };
  const goal = goals[event.key]?.();
  if (!(goal instanceof HTMLElement)) return;
  event.preventDefault();
  event.stopPropagation();
  goal.focus();
}
