import { teacherText } from '@zest/core/words';
import type { BlockKind } from '@zest/core/lesson';

/** One line about each kind, for whoever chooses one. */
export const kindWords: Record<BlockKind, string> = {
  talk: teacherText('sheet.words-your-pace-fixed'),
  intervals: teacherText('sheet.exercises-clock-rounds-sets'),
  reps: teacherText('sheet.number-repetitions-tempo-side'),
  hold: teacherText('sheet.seconds-slow-breaths-side'),
  counts: teacherText('sheet.moves-beat-eights'),
  routine: teacherText('sheet.moves-grow-into-whole'),
  laps: teacherText('sheet.times-round-tokens-take'),
  game: teacherText('sheet.against-clock-target-score'),
  called: teacherText('sheet.commands-random-order'),
  question: teacherText('sheet.asked-thought-about-answered'),
  card: teacherText('sheet.kit-space-rules-read'),
};
