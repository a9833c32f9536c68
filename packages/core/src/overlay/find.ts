/**
 * The item of a sorted, non-overlapping list that covers `ms`, by binary search.
 * @returns its index, or -1 when `ms` lies in a gap
 */
export function indexAt(items: readonly { startMs: number; endMs: number }[], ms: number): number {
  let low = 0;
  let high = items.length - 1;
  while (low <= high) {
    const middle = (low + high) >> 1;
    const item = items[middle];
    if (!item) return -1;
    if (ms < item.startMs) high = middle - 1;
    else if (ms >= item.endMs) low = middle + 1;
    else return middle;
  }
  return -1;
}
