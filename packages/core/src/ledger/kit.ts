import { kitText, makeBlock, makeKit, type Block, type Kit, type MakeId } from '../lesson/index.ts';
import type { Schedule } from '../schedule/index.ts';

export interface KitLine {
  /** As it was first written. */
  name: string;
  /** The most needed at one time, by whom it is for. */
  quantity: number;
  share: Kit['share'];
  standIns: string[];
  /** The block that first uses it, and when that starts on the student clock; null when it is only announced. */
  neededIn: { blockId: string; title: string; atMs: number } | null;
  /** When it is first named, on the student clock; null when never. */
  announcedMs: number | null;
  /** It is needed before, or without, being named: a pause to fetch it belongs before that block. */
  fetchBefore: string | null;
}

const keyOf = (name: string) => name.trim().toLowerCase();

/** A block that is about the kit announces it; any other that lists it uses it. */
function announces(block: Block): boolean {
  return block.part === 'kit' || (block.kind === 'card' && block.about === 'kit');
}

function textOf(block: Block): string {
  return keyOf([block.script, ...(block.kind === 'card' ? block.lines : [])].join(' '));
}

/** What the lesson needs, from when, and whether it is named in time. In the order it is first met. */
export function kitLedger(schedule: Schedule): KitLine[] {
  const lines = new Map<string, KitLine>();
  for (const { block, studentStartMs } of schedule.blocks) {
    for (const item of block.kit) {
      const key = keyOf(item.name);
      if (key === '') continue;
      const line: KitLine = lines.get(key) ?? { name: item.name.trim(), quantity: 0, share: item.share, standIns: [], neededIn: null, announcedMs: null, fetchBefore: null };
      lines.set(key, line);
      line.quantity = Math.max(line.quantity, item.quantity);
      const standIn = item.standIn.trim();
      if (standIn !== '' && !line.standIns.includes(standIn)) line.standIns.push(standIn);
      if (announces(block)) line.announcedMs ??= studentStartMs;
      else line.neededIn ??= { blockId: block.id, title: block.title, atMs: studentStartMs };
    }
  }
  for (const [key, line] of lines) {
    const named = schedule.blocks.find(({ block }) => textOf(block).includes(key));
    if (named) line.announcedMs = Math.min(line.announcedMs ?? Infinity, named.studentStartMs);
    const { neededIn, announcedMs } = line;
    // Naming it in the block that uses it is too late: the student stands there without.
    if (neededIn && (announcedMs === null || announcedMs >= neededIn.atMs)) line.fetchBefore = neededIn.blockId;
  }
  return [...lines.values()];
}

const FETCH_MS = 30_000;

/** A card that names the thing, and a stop to fetch it. */
export function fetchPause({ name, quantity, share, standIns }: KitLine, makeId: MakeId): Block {
  const item = { ...makeKit(name, makeId), quantity, share, standIn: standIns[0] ?? '' };
  return {
    ...makeBlock('card', makeId),
    title: `Fetch: ${name}`,
    part: 'kit',
    kit: [item],
    ...{ about: 'kit', lines: [kitText(item)] },
    pauseAfter: { practiceMs: FETCH_MS, signMs: 5_000, prompt: `Fetch ${name}.` },
  } as Block;
}
