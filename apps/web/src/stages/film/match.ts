interface Timed {
  id: string;
  ms: number;
}

/** Leaving a file or a block out costs as much as being off by so much. */
const LEFT_OUT_MS = 12_000;
/** A file is longer than its block by heads and tails; being too short counts more. */
const TOO_SHORT = 4;

/** How badly a file suits a block, in milliseconds. */
function misfit(file: Timed, block: Timed): number {
  const over = file.ms - block.ms;
  return over >= 0 ? over : -over * TOO_SHORT;
}

/**
 * Which file shows which block, both in order: the pairs in order whose lengths suit each other
 * best.
 * @returns block ids by file id; files that suit none are left out
 */
export function matchByOrder(
  files: readonly Timed[],
  blocks: readonly Timed[],
): Map<string, string> {
  const cost: number[][] = [Array.from({ length: blocks.length + 1 }, (_, j) => j * LEFT_OUT_MS)];
  for (const [i, file] of files.entries()) {
    const row = [(i + 1) * LEFT_OUT_MS];
    for (const [j, block] of blocks.entries()) {
      const [paired, noFile, noBlock] = [
        (cost[i]?.[j] ?? 0) + misfit(file, block),
        (cost[i]?.[j + 1] ?? 0) + LEFT_OUT_MS,
        (row[j] ?? 0) + LEFT_OUT_MS,
      ];
      row.push(Math.min(paired, noFile, noBlock));
    }
    cost.push(row);
  }
  const pairs = new Map<string, string>();
  let [i, j] = [files.length, blocks.length];
  while (i > 0 && j > 0) {
    const [file, block, costSoFar] = [files[i - 1], blocks[j - 1], cost[i]?.[j] ?? 0];
    if (!file || !block) break;
    if (costSoFar === (cost[i - 1]?.[j - 1] ?? 0) + misfit(file, block)) {
      pairs.set(file.id, block.id);
      i -= 1;
      j -= 1;
    } else if (costSoFar === (cost[i - 1]?.[j] ?? 0) + LEFT_OUT_MS) i -= 1;
    else j -= 1;
  }
  return pairs;
}
