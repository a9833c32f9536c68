import {
  LIMITS,
  makeBlock,
  makeExercise,
  makeKit,
  movementNamed,
  type Block,
  type BlockKind,
  type BlockOf,
  type Exercise,
  type MakeId,
} from '../lesson/index.ts';
import { teacherText } from '../words/index.ts';

/** Makes the blocks of one lesson. */
export interface Pieces {
  makeId: MakeId;
  /** A block of a kind with what differs from its everyday figures. */
  block: <K extends BlockKind>(kind: K, title: string, own?: Partial<BlockOf<K>>) => BlockOf<K>;
  exercise: (title: string) => Exercise;
  /** The movement a name speaks of, called as its block. */
  move: (name: string) => Exercise;
  hello: (script: string) => Block;
  kit: (things: readonly string[]) => Block[];
  space: (more?: string) => Block;
  bye: (script: string) => Block;
}

const title = (text: string) => text.slice(0, LIMITS.title);

/** What most lessons begin and end with, and how blocks are made. */
export function piecesFor(makeId: MakeId, language: string): Pieces {
  const block: Pieces['block'] = (kind, name, own) => ({
    ...(makeBlock(kind, makeId, language) as BlockOf<typeof kind>),
    title: title(name),
    ...own,
  });
  return {
    makeId,
    block,
    exercise: (name) => ({
      ...makeExercise(title(name), makeId),
      movement: movementNamed(name),
    }),
    move: (name) => ({ ...makeExercise('', makeId), movement: movementNamed(name) }),
    hello: (script) => block('talk', teacherText('pattern.hello'), { script, part: 'greeting' }),
    kit: (things) =>
      things.length === 0
        ? []
        : [
            block('card', teacherText('pattern.you-need'), {
              about: 'kit',
              lines: things.slice(0, LIMITS.cardLines),
              kit: things.slice(0, LIMITS.kit).map((thing) => makeKit(title(thing), makeId)),
              part: 'kit',
            }),
          ],
    space: (more) =>
      block('card', teacherText('pattern.clear-the-floor'), {
        about: 'space',
        lines: [teacherText('pattern.two-steps'), ...(more ? [more] : [])],
        cautions: [teacherText('pattern.shoes-tied')],
        part: 'space',
      }),
    bye: (script) => block('talk', teacherText('pattern.see-you'), { script, part: 'sign-off' }),
  };
}
