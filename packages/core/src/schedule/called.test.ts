import { describe, expect, it } from 'vitest';
import {
  exercisesOf,
  makeBlock,
  makeLesson,
  readLesson,
  type BlockOf,
  type Command,
} from '../lesson/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { labelText } from '../words/index.ts';
import { blockSummary, measureBlock, timeBlock } from './index.ts';

const lesson = makeLesson('A', counter());
const command = (text: string, more: Partial<Command> = {}): Command => ({
  ...{ id: text, text },
  ...more,
});
const jump = command('Jump', { amount: { kind: 'reps', reps: 3, oneMs: 1_000 } });
const freeze = command('Freeze', { does: 'nothing' });
const game = (more: Partial<BlockOf<'called'>> = {}) =>
  ({
    ...makeBlock('called', counter()),
    ...{ id: 'g', title: 'Ship ahoy', labels: [jump, freeze], demo: null, leadInMs: 3_000 },
    ...{ calls: 6, gapMinMs: 2_000, gapMaxMs: 4_000, minEach: 1, seed: 7 },
    ...more,
  }) as BlockOf<'called'>;
const base = { id: 'run', title: 'Run on the spot', movement: 'step-and-reach' } as const;
const lengthOf = (block: BlockOf<'called'>) => measureBlock(block, lesson);
const spansOf = (block: BlockOf<'called'>) => timeBlock(block, lesson).spans;

describe('called-out games', () => {
  it('last as long as what their commands ask for, in whatever order they come', () => {
    // 3 s, six gaps of 3 s in the middle, and three of the six calls are jumps of 3 × 1 s.
    expect(lengthOf(game())).toBe(3_000 + 18_000 + 9_000);
    for (const seed of [1, 2, 3, 99]) {
      expect(lengthOf(game({ seed }))).toBe(30_000);
      expect(spansOf(game({ seed })).at(-1)?.endMs).toBe(30_000);
    }
    // Seven calls: four jumps, three freezes, seven gaps.
    expect(lengthOf(game({ calls: 7 }))).toBe(3_000 + 21_000 + 12_000);
  });

  it('have a move between the calls, which goes on two seconds after one that asks for nothing', () => {
    const spans = spansOf(game({ base, calls: 2 }));
    const parts = spans.map(
      ({ kind, label, startMs, endMs, movement }) =>
        `${kind} ${labelText(label, 'en')} ${(endMs - startMs) / 1_000} ${movement}`,
    );
    const jumped = parts.indexOf('prompt Jump 3 other');
    const frozen = parts.indexOf('prompt Freeze 2 undefined');
    expect(jumped).toBeGreaterThan(0);
    expect(frozen).toBeGreaterThan(0);
    expect(parts[jumped + 1]).toMatch(/^move Run on the spot \d.*step-and-reach$/);
    // 3 s, a jump of 3 s, two gaps of 6 s together.
    expect(spans.at(-1)?.endMs).toBe(12_000);
    expect(exercisesOf(game({ base }))).toEqual([base]);
  });

  it('are tried first without counting: three calls, then ready again, then the game', () => {
    // 3 s; Jump 3 + 3 s, Freeze 3 s, Jump 3 + 3 s; 3 s; and the game's 27 s.
    const tried = game({ trial: 3 });
    expect(lengthOf(tried)).toBe(3_000 + 15_000 + 3_000 + 27_000);
    const spans = spansOf(tried);
    expect(spans.at(-1)?.endMs).toBe(48_000);
    expect(spans.slice(1, 4).map(({ label, round }) => [labelText(label, 'en'), round])).toEqual([
      ['Jump', 1],
      ['Freeze', 1],
      ['Jump', 1],
    ]);
    expect(labelText(spans[4]?.label ?? { text: '' }, 'en')).toBe('Now it counts');
    expect(spans[5]?.round).toBe(2);
  });

  it('with a leader’s words count only with them: of six calls two come bare, and nobody moves', () => {
    const spans = spansOf(
      game({
        labels: [command('North'), command('South')],
        leader: { words: 'Captain says', without: 2 },
      }),
    ).filter(({ kind }) => kind === 'prompt');
    const texts = spans.map(({ label }) => labelText(label, 'en'));
    expect(texts.filter((text) => text.startsWith('Captain says '))).toHaveLength(4);
    for (const [i, { movement }] of spans.entries())
      expect(movement).toBe(texts[i]?.startsWith('Captain') ? 'other' : undefined);
  });

  it('have signs on screen while they are answered, and nothing else instead of words', () => {
    const signed = command('Red', { sign: { by: 'colour', colour: 'red' } });
    const spans = spansOf(game({ labels: [signed, command('Go')] }));
    expect(
      spans
        .filter(({ kind }) => kind === 'prompt')
        .every(({ command: at, label }) => labelText(label, 'en') === (at === 0 ? 'Red' : 'Go')),
    ).toBe(true);
  });

  it('are stored as they were, and say what does not fit', () => {
    const whole = (block: BlockOf<'called'>) => ({
      ...lesson,
      sections: [{ id: 's', title: 'S', blocks: [block] }],
    });
    const all = whole(
      game({
        ...{ base, trial: 2, score: { kind: 'lives', lives: 3 } },
        labels: [
          jump,
          { ...freeze, sign: { by: 'colour', colour: 'red' } },
          command('Six', { sign: { by: 'card', shape: 'star', number: 6 } }),
          command('Two', { sign: { by: 'number', number: 2 } }),
          command('Beeps', { sign: { by: 'sound', beeps: 2 } }),
        ],
      }),
    );
    expect(readLesson(JSON.parse(JSON.stringify(all))).sections).toEqual(all.sections);
    const much = whole(game({ leader: { words: 'Captain says', without: 7 } }));
    expect(() => readLesson(JSON.parse(JSON.stringify(much)))).toThrow('No more calls without');
    expect(blockSummary(game({ score: { kind: 'lives', lives: 3 } }), 'en')).toBe(
      '6 calls of 2 commands, 3 lives',
    );
  });
});
