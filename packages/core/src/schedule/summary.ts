import { kindNames, repMs, type Block } from '../lesson/index.ts';
import { lengthText } from '../time/index.ts';
import { countWords } from './speech.ts';

const sideWords = { both: '', each: ' each side', alternating: ' each side, alternating' } as const;
const growWords = {
  'from-start': 'from the start',
  'new-only': 'new move only',
  backwards: 'backwards',
} as const;
const scoreWords = {
  count: 'how many',
  time: 'how fast',
  points: 'points',
  streak: 'longest streak',
} as const;
const many = (n: number, one: string, more = `${one}s`) => `${n} ${n === 1 ? one : more}`;
const times = (n: number) => (n > 1 ? `${n} × ` : '');

/** A block's figures in the trade's words. */
export function blockSummary(block: Block): string {
  const name = kindNames[block.kind].toLowerCase();
  switch (block.kind) {
    case 'talk': {
      if (block.fixedMs !== null) return 'talk, fixed length';
      const words = countWords(block.script);
      return words === 0 ? 'talk, nothing to say yet' : `talk, ${words} words`;
    }
    case 'intervals': {
      const rungs = [{ workMs: block.workMs, restMs: block.restMs }, ...block.ladder];
      const figures =
        rungs.length > 1
          ? rungs.map((r) => `${r.workMs / 1000}/${r.restMs / 1000}`).join(', ')
          : `${lengthText(block.workMs)} work, ${lengthText(block.restMs)} rest`;
      return `${times(block.sets)}${block.rounds} × ${many(block.exercises.length, 'exercise')}, ${figures}`;
    }
    case 'reps':
      return `${times(block.sets)}${block.reps} repetitions${sideWords[block.sides]}, ${lengthText(repMs(block.tempo))} each`;
    case 'hold':
      return `${times(block.holds)}${block.by === 'breaths' ? many(block.breaths, 'slow breath') : lengthText(block.holdMs)} held${sideWords[block.sides]}`;
    case 'counts':
      return `${name}, ${times(block.times)}${many(
        block.moves.reduce((sum, { eights }) => sum + eights, 0),
        'eight',
      )} at ${block.bpm} beats a minute`;
    case 'routine':
      return `${name} of ${many(block.moves.length, 'move')}, grows ${growWords[block.grow]}`;
    case 'laps':
      return `${many(block.laps, 'lap')} of about ${lengthText(block.lapMs)}${block.tokens > 0 ? `, ${many(block.tokens, 'token')}` : ''}`;
    case 'game':
      return `${times(block.tries)}${block.goal === 'clock' ? lengthText(block.playMs) : `to ${block.target}`}, score: ${scoreWords[block.scoring]}`;
    case 'called':
      return `${many(block.calls, 'call')} of ${many(block.labels.length, 'command')}`;
    case 'question':
      return `${name}, ${lengthText(block.thinkMs)} to think`;
    case 'card':
      return `${name}, ${many(block.lines.length, 'line')}`;
  }
}
