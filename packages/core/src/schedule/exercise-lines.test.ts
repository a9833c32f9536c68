import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeLesson, movementNamed, readExerciseLines, readLesson } from '../lesson/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { shortForm } from './index.ts';

const read = (text: string) => readExerciseLines(text, counter());
/** A line as kind, name and short form. */
const told = (line: string) =>
  read(line).blocks.map((block) => `${block.kind}: ${block.title}, ${shortForm(block)}`);

describe('exercises noted as lines', () => {
  it.each([
    ['Star jumps 30/15', 'intervals: Star jumps, 30/15'],
    ['Star jumps: 30/15 x3', 'intervals: Star jumps, 3 × 30/15'],
    ['4 x 20/10 Rope skipping', 'intervals: Rope skipping, 4 × 20/10'],
    ['Squats 12 each', 'reps: Squats, 12 each side'],
    ['Squats x12', 'reps: Squats, 12'],
    ['12 squats', 'reps: squats, 12'],
    ['- 3 x 10 Band rows', 'reps: Band rows, 3 × 10'],
    ['1. Lunges, 3 sets of 8 per leg', 'reps: Lunges, 3 × 8 each side'],
    ['Step and reach 10 alternating', 'reps: Step and reach, 10 alternating'],
    ['Plank 40 s', 'hold: Plank, 40 s'],
    ['Side plank 2 x 30 sec each side', 'hold: Side plank, 2 × 30 s each side'],
    ['Balance – 3 breaths each side', 'hold: Balance, 3 breaths each side'],
    ['Jog on the spot 1:30', 'intervals: Jog on the spot, 1 min 30 s'],
    ['Round the cones 4 laps', 'laps: Round the cones, 4 laps'],
    ['Star jumps\t30\t15', 'intervals: Star jumps, 30/15'],
    ['Squats\t3 x 12', 'reps: Squats, 3 × 12'],
    ['Kniebeugen 3 x 10 je Seite', 'reps: Kniebeugen, 3 × 10 each side'],
    ['Unterarmstütz 1,5 min', 'hold: Unterarmstütz, 1 min 30 s'],
    ['Balance: 3 Atemzüge pro Seite', 'hold: Balance, 3 breaths each side'],
    ['Schritt und strecken 10 Wdh abwechselnd', 'reps: Schritt und strecken, 10 alternating'],
    ['Plancha 2 x 30 seg por lado', 'hold: Plancha, 2 × 30 s each side'],
    ['3 series de 8 sentadillas', 'reps: sentadillas, 3 × 8'],
    ['Carrera suave 4 vueltas', 'laps: Carrera suave, 4 laps'],
  ])('reads %s', (line, block) => {
    expect(told(line)).toEqual([block]);
  });

  it('keeps the order, and gives back what it cannot read as it was written', () => {
    const { blocks, notRead } = read(
      'Star jumps 30/15\n\n Bring water! \nPlank 40 s\n12\nA 5 b 6 c',
    );
    expect(blocks.map(({ title }) => title)).toEqual(['Star jumps', 'Plank']);
    expect(notRead).toEqual(['Bring water!', '12', 'A 5 b 6 c']);
  });

  it('makes nothing a lesson could not hold, whatever is pasted', () => {
    const words = fc.constantFrom(
      'Squats',
      '12',
      '3 x',
      '30/15',
      '999/1',
      'each',
      '40 s',
      '9:99',
      '\t',
      '–',
      '0',
      'x',
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string({ unit: 'grapheme' }),
          fc.array(words).map((all) => all.join(' ')),
        ),
        (text) => {
          const makeId = counter();
          const { blocks, notRead } = readExerciseLines(text, makeId);
          const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
          expect(blocks.length + notRead.length).toBe(lines.length);
          const lesson = makeLesson('Pasted', makeId);
          lesson.sections[0]!.blocks = blocks.slice(0, 60);
          expect(readLesson(structuredClone(lesson)).sections[0]?.blocks.length).toBe(
            Math.min(60, blocks.length),
          );
        },
      ),
    );
  });

  it('knows the movements the performer can draw by their names', () => {
    expect(movementNamed('Double-unders with the rope')).toBe('skip-rope');
    expect(movementNamed('Stork stand on one leg')).toBe('one-leg-balance');
    expect(movementNamed('Star jumps')).toBe('other');
  });
});
