import { makeBlock, makeCue, makeKit, type Block, type BlockKind, type BlockOf, type Cue, type Exercise, type Kit, type Movement } from '@zest/core/lesson';

export const exercise = (id: string, title: string, movement: Movement): Exercise => ({ id, title, movement });
export const cue = (id: string, text: string, moment: Cue['moment']): Cue => ({ ...makeCue(text, () => id), moment });
export const kit = (id: string, name: string, standIn: string): Kit => ({ ...makeKit(name, () => id), standIn });

/** A block of the kind with the figures given. */
export function planned<K extends BlockKind>(kind: K, id: string, figures: Partial<BlockOf<K>>): Block {
  return { ...makeBlock(kind, () => id), ...figures } as Block;
}
