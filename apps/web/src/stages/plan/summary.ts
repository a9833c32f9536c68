import { repMs, type Block } from '@zest/core/lesson';
import { countWords } from '@zest/core/schedule';
import { lengthText } from '@zest/core/time';

const sideWords = { both: '', each: ' each side', alternating: ' each side, alternating' } as const;

/** A block's figures in the trade's words. */
export function blockSummary(block: Block): string {
  switch (block.kind) {
    case 'talk': {
      if (block.fixedMs !== null) return 'talk, fixed length';
      const words = countWords(block.script);
      return words === 0 ? 'talk, nothing to say yet' : `talk, ${words} words`;
    }
    case 'intervals':
      return `${block.rounds} × ${block.exercises.length} ${block.exercises.length === 1 ? 'exercise' : 'exercises'}, ${lengthText(block.workMs)} work, ${lengthText(block.restMs)} rest`;
    case 'reps':
      return `${block.sets > 1 ? `${block.sets} × ` : ''}${block.reps} repetitions${sideWords[block.sides]}, ${lengthText(repMs(block.tempo))} each`;
  }
}
