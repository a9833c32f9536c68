import {
  cueOfEntry,
  makeBlock,
  makeCue,
  makeKit,
  type Block,
  type BlockKind,
  type BlockOf,
  type Cue,
  type Exercise,
  type FloorMark,
  type Kit,
  type Level,
  type Movement,
} from '@zest/core/lesson';
import { demoCues } from './series.ts';

export const exercise = (id: string, title: string, movement: Movement): Exercise => ({
  id,
  title,
  movement,
});
/** A cue; one of the club's library has its words and its entry. */
export function cue(id: string, text: string, moment: Cue['moment']): Cue {
  const entry = demoCues.find((known) => known.text === text && known.moment === moment);
  return entry ? cueOfEntry(entry, () => id) : { ...makeCue(text, () => id), moment };
}
export const level = (
  id: string,
  form: Level['form'],
  text: string,
  rule: string,
  target: number | null = null,
): Level => ({ id, form, text, rule, target });
export const mark = (
  id: string,
  kind: FloorMark['kind'],
  label: string,
  forwardCm: number,
  rightCm = 0,
  sizeCm = 60,
): FloorMark => ({ id, kind, label, rightCm, forwardCm, widthCm: sizeCm, depthCm: sizeCm });
export const kit = (id: string, name: string, standIn: string): Kit => ({
  ...makeKit(name, () => id),
  standIn,
});

/** A block of the kind with the figures given. */
export function planned<K extends BlockKind>(
  kind: K,
  id: string,
  figures: Partial<BlockOf<K>>,
): Block {
  return { ...makeBlock(kind, () => id), ...figures } as Block;
}
