import {
  allKit,
  isSameThing,
  kitNeeds,
  makeBlock,
  makeKit,
  namesThing,
  insteadText,
  neededText,
  type Block,
  type KitNeed,
  type MakeId,
} from '../lesson/index.ts';
import { lessonWord } from '../words/index.ts';
import type { Schedule } from '../schedule/index.ts';

export interface KitLine {
  /** As it was first written. */
  name: string;
  /** The most needed at one time, apart for each student, each pair and the group. */
  needs: KitNeed[];
  standIns: string[];
  /**
   * The block that first uses it, and when that starts on the student clock; null when it is only
   * announced.
   */
  neededIn: { blockId: string; title: string; atMs: number } | null;
  /** When it is first named, on the student clock; null when never. */
  announcedMs: number | null;
  /**
   * It is needed before, or without, being named: a pause to fetch it belongs before that block.
   */
  fetchBefore: string | null;
}

/** A block that is about the kit announces it; any other that lists it uses it. */
function announces(block: Block): boolean {
  return block.part === 'kit' || (block.kind === 'card' && block.about === 'kit');
}

function textOf(block: Block): string {
  return [block.script, ...(block.kind === 'card' ? block.lines : [])].join('\n');
}

/**
 * What the lesson needs, from when, and whether it is named in time. In the order it is first met.
 * @param language of the lesson's words
 */
export function kitLedger(schedule: Schedule, language: string): KitLine[] {
  const lines: KitLine[] = [];
  for (const { block, studentStartMs } of schedule.blocks) {
    const atOnce = new Map<KitLine, KitNeed[]>();
    for (const { name, quantity, share, standIn } of allKit(block)) {
      if (name.trim() === '') continue;
      let line = lines.find((known) => isSameThing(known.name, name, language));
      if (!line)
        lines.push(
          (line = {
            name: name.trim(),
            needs: [],
            standIns: [],
            neededIn: null,
            announcedMs: null,
            fetchBefore: null,
          }),
        );
      const needs = atOnce.get(line) ?? [];
      const same = needs.find((need) => need.share === share);
      atOnce.set(
        line,
        same
          ? needs.map((need) =>
              need === same ? { share, quantity: same.quantity + quantity } : need,
            )
          : [...needs, { share, quantity }],
      );
      const instead = standIn.trim();
      if (instead !== '' && !line.standIns.includes(instead)) line.standIns.push(instead);
      if (announces(block)) line.announcedMs ??= studentStartMs;
      else line.neededIn ??= { blockId: block.id, title: block.title, atMs: studentStartMs };
    }
    for (const [line, needs] of atOnce) line.needs = kitNeeds([...line.needs, ...needs]);
  }
  const texts = schedule.blocks
    .map(({ block, studentStartMs }) => ({ text: textOf(block), atMs: studentStartMs }))
    .filter(({ text }) => text.trim() !== '');
  for (const line of lines) {
    const named = texts.find(({ text }) => namesThing(text, line.name, language));
    if (named) line.announcedMs = Math.min(line.announcedMs ?? Infinity, named.atMs);
    const { neededIn, announcedMs } = line;
    // Naming it in the block that uses it is too late: the student stands there without.
    if (neededIn && (announcedMs === null || announcedMs >= neededIn.atMs))
      line.fetchBefore = neededIn.blockId;
  }
  return lines;
}

const FETCH_MS = 30_000;

/** A card that names the thing, and a stop to fetch it, in the lesson's language. */
export function fetchPause(
  { name, needs, standIns }: KitLine,
  language: string,
  makeId: MakeId,
): Block {
  const standIn = standIns[0] ?? '';
  const fetch = lessonWord(language, 'kit.fetch', { name });
  return {
    ...makeBlock('card', makeId, language),
    title: fetch,
    part: 'kit',
    kit: needs.map(({ share, quantity }) => ({
      ...makeKit(name, makeId),
      quantity,
      share,
      standIn,
    })),
    ...{
      about: 'kit',
      lines: [insteadText(neededText(name, needs, language), [standIn], language)],
    },
    pauseAfter: { practiceMs: FETCH_MS, signMs: 5_000, prompt: fetch },
  } as Block;
}
