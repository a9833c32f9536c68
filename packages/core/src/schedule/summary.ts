import {
  beatsText,
  choiceText,
  exerciseTitles,
  movesDone,
  repMs,
  type Block,
  type BlockOf,
} from '../lesson/index.ts';
import { lengthText } from '../time/index.ts';
import { paperWord, type PaperWord, type Values } from '../words/index.ts';
import { countWords } from './speech.ts';

const times = (n: number) => (n > 1 ? `${n} × ` : '');

/** What is done of each exercise of a circuit: "10 Squats, 8 Lunges each side, 30 s Plank". */
function amounts(block: BlockOf<'intervals'>, language: string): string[] {
  const titles = exerciseTitles(block, language);
  return block.exercises.map(({ amount, sides }, i) => {
    const much =
      amount?.kind === 'reps'
        ? String(amount.reps)
        : lengthText(amount?.kind === 'hold' ? amount.holdMs : block.workMs);
    const each = amount && sides === 'halves' ? paperWord(language, 'summary.each-side') : '';
    return `${much} ${titles[i] ?? ''}${each}`;
  });
}

function intervalsText(block: BlockOf<'intervals'>, language: string): string {
  const rounds = `${times(block.sets)}${block.rounds} × `;
  if (block.exercises.some(({ amount }) => amount))
    return `${rounds}(${amounts(block, language).join(', ')})`;
  const rungs = [{ workMs: block.workMs, restMs: block.restMs }, ...block.ladder];
  const figures =
    rungs.length > 1
      ? rungs.map((r) => `${r.workMs / 1000}/${r.restMs / 1000}`).join(', ')
      : paperWord(language, 'summary.work-rest', {
          work: lengthText(block.workMs),
          rest: lengthText(block.restMs),
        });
  return rounds + paperWord(language, 'summary.intervals', { n: block.exercises.length, figures });
}

/** Counts of eight, or of other lengths: "2 × (5 + 3 March, 8 Clap) at 120 beats a minute". */
function countsText(block: BlockOf<'counts'>, language: string): string {
  const { bpm } = block;
  const moves = movesDone(block);
  if (!moves.some(({ beats }) => beats))
    return paperWord(language, 'summary.counts', {
      times: times(block.times),
      n: moves.reduce((sum, { eights }) => sum + eights, 0),
      bpm,
    });
  const titles = exerciseTitles(block, language);
  const list = moves.map(
    ({ beats, eights }, i) => `${times(eights)}${beatsText(beats)} ${titles[i] ?? ''}`,
  );
  const what = `${times(block.times)}(${list.join(', ')})`;
  return paperWord(language, 'summary.beats', { what, bpm });
}

function routineText(block: BlockOf<'routine'>, language: string): string {
  const n = movesDone(block).length;
  const { combination, grow, wholeTimes } = block;
  if (combination || grow === 'whole')
    return paperWord(language, 'summary.combination', {
      ...{ n, times: Math.max(1, wholeTimes) },
      sides: combination?.sides === 'each' ? paperWord(language, 'summary.each-side') : '',
    });
  const grows = grow === 'new-only' ? 'newOnly' : grow;
  return paperWord(language, 'summary.routine', { n, grow: grows });
}

function calledText({ calls, labels, score }: BlockOf<'called'>, language: string): string {
  const say = (word: PaperWord, values?: Values) => paperWord(language, word, values);
  const what = say('summary.called', { calls, n: labels.length });
  if (!score) return what;
  const counted =
    score.kind === 'lives'
      ? say('summary.lives', { n: score.lives })
      : say('summary.points-each', { n: score.each });
  return `${what}, ${counted}`;
}

function questionText({ thinkMs, choices }: BlockOf<'question'>, language: string): string {
  const list = (choices ?? []).map((one, i) => {
    const choice = choiceText(one, i);
    return one.isRight ? paperWord(language, 'summary.right-choice', { choice }) : choice;
  });
  return [paperWord(language, 'summary.question', { length: lengthText(thinkMs) }), ...list].join(
    ', ',
  );
}

/** A block's figures in the trade's words, in a language. */
export function blockSummary(block: Block, language: string): string {
  const say = (word: PaperWord, values?: Values) => paperWord(language, word, values);
  const sidesOf = (sides: 'both' | 'each' | 'alternating') =>
    sides === 'both' ? '' : say(sides === 'each' ? 'summary.each-side' : 'summary.alternating');
  switch (block.kind) {
    case 'talk': {
      if (block.fixedMs !== null) return say('summary.talk-fixed');
      const words = countWords(block.script);
      return words === 0 ? say('summary.talk-empty') : say('summary.talk', { n: words });
    }
    case 'intervals':
      return intervalsText(block, language);
    case 'reps': {
      const length = lengthText(repMs(block.tempo));
      const values = { n: block.reps, sides: sidesOf(block.sides), length };
      return `${times(block.sets)}${say('summary.reps', values)}`;
    }
    case 'hold': {
      const what =
        block.by === 'breaths'
          ? say('summary.breaths', { n: block.breaths })
          : lengthText(block.holdMs);
      return `${times(block.holds)}${say('summary.held', { what, sides: sidesOf(block.sides) })}`;
    }
    case 'counts':
      return countsText(block, language);
    case 'routine':
      return routineText(block, language);
    case 'laps': {
      const laps = say('summary.laps', { n: block.laps, length: lengthText(block.lapMs) });
      return block.tokens > 0 ? laps + say('summary.tokens', { n: block.tokens }) : laps;
    }
    case 'game': {
      const goal =
        block.goal === 'clock'
          ? lengthText(block.playMs)
          : say('summary.to-target', { n: block.target });
      const what = `${times(block.tries)}${goal}`;
      return say('summary.score', { what, scoring: block.scoring });
    }
    case 'called':
      return calledText(block, language);
    case 'question':
      return questionText(block, language);
    case 'card':
      return say('summary.card', { n: block.lines.length });
  }
}
