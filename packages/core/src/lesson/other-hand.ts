import type { Block, MoveSide } from './blocks.ts';
import { otherSide } from './make.ts';
import type { Lesson } from './schema.ts';

const OTHER: Record<MoveSide, MoveSide> = {
  left: 'right',
  right: 'left',
  'left-right': 'right-left',
  'right-left': 'left-right',
};
const withOtherSide = <M extends { side?: MoveSide | undefined }>(move: M): M =>
  move.side ? { ...move, side: OTHER[move.side] } : move;

function turned(block: Block): Block {
  const edits = block.edits.map((edit) =>
    edit.kind === 'taps'
      ? {
          ...edit,
          taps: edit.taps.map((tap) => ({ ...tap, side: tap.side && otherSide(tap.side) })),
        }
      : edit,
  );
  const mirrored: Block =
    'startSide' in block
      ? { ...block, edits, startSide: otherSide(block.startSide) }
      : { ...block, edits };
  if (mirrored.kind === 'intervals')
    return {
      ...mirrored,
      exercises: mirrored.exercises.map((exercise) => ({
        ...exercise,
        sides:
          exercise.sides === 'left' || exercise.sides === 'right'
            ? otherSide(exercise.sides)
            : exercise.sides,
      })),
    };
  if (mirrored.kind === 'counts') return { ...mirrored, moves: mirrored.moves.map(withOtherSide) };
  if (mirrored.kind === 'routine') {
    const { combination } = mirrored;
    return {
      ...mirrored,
      moves: mirrored.moves.map(withOtherSide),
      ...(combination && {
        combination: { ...combination, startSide: otherSide(combination.startSide) },
      }),
    };
  }
  return mirrored;
}

/**
 * The lesson for students of the other hand: the picture is turned round and sides are named
 * accordingly. Wordings for either hand ("throwing hand") hold as they are; a side that is fixed in
 * a text is not touched, since only the teacher can tell what it means.
 */
export function forOtherHand(lesson: Lesson): Lesson {
  const sides = lesson.settings.sides === 'mirrored' ? 'performer' : 'mirrored';
  return {
    ...lesson,
    settings: { ...lesson.settings, sides },
    sections: lesson.sections.map((section) => ({
      ...section,
      blocks: section.blocks.map(turned),
    })),
  };
}
