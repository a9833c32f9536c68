import { blocksOf, changeBlock, type Block } from '../lesson/index.ts';
import { calledNumber, rewriteScript } from '../script/index.ts';
import type { Hit } from './finding.ts';
import type { ToCheck } from './rule.ts';

const LARGEST = 100;
const inEnglish = (n: number) => calledNumber(n, { language: 'en', own: [] });
const numbers = new Map(
  Array.from({ length: LARGEST }, (_, i) => [inEnglish(i + 1).toLowerCase(), i + 1]),
);
const WORDS = [...numbers.keys()].sort((a, b) => b.length - a.length).join('|');

type Unit = 'times' | 'sets' | 'rounds' | 'seconds' | 'breaths' | 'laps';
const UNITS: Record<string, Unit> = {
  time: 'times',
  times: 'times',
  repetition: 'times',
  repetitions: 'times',
  rep: 'times',
  reps: 'times',
  set: 'sets',
  sets: 'sets',
  round: 'rounds',
  rounds: 'rounds',
  second: 'seconds',
  seconds: 'seconds',
  breath: 'breaths',
  breaths: 'breaths',
  lap: 'laps',
  laps: 'laps',
};
/** “Eight repetitions”, “8 slow breaths”; not “three times a week” and not “the second time”. */
const COUNTED = `(${WORDS}|\\d{1,3})(?: (?:more|slow|calm|full|good))?`;
const UNIT = `(${Object.keys(UNITS).join('|')})`;
const SAID = new RegExp(
  String.raw`(?<![\w.,:-])${COUNTED} ${UNIT}\b(?! (?:a|per|every|each|in a|this|last)\b)`,
  'giu',
);

/**
 * Figures a block's script may name, by their unit; the first is what it mostly means. No entry:
 * anything may be meant.
 */
function figuresOf(block: Block): Partial<Record<Unit, readonly number[]>> {
  const seconds = (...ms: number[]) => ms.map((one) => one / 1_000);
  const shown = 'demo' in block && block.demo ? [block.demo.times] : [];
  switch (block.kind) {
    case 'reps': {
      const both = block.sides === 'both' ? 1 : 2;
      const { downMs, holdMs, upMs, topHoldMs } = block.tempo;
      const parts = block.parts ? [block.parts.timesEach, block.parts.joinedTimes] : [];
      return {
        times: [
          block.reps,
          block.reps * both,
          block.reps * block.sets,
          block.reps * both * block.sets,
          ...shown,
          ...parts,
        ],
        sets: [block.sets, block.sets * both],
        seconds: seconds(
          downMs,
          holdMs,
          upMs,
          topHoldMs,
          downMs + holdMs + upMs + topHoldMs,
          block.restBetweenSetsMs,
          block.sideChangeMs,
          block.leadInMs,
        ),
      };
    }
    case 'intervals':
      return {
        seconds: seconds(
          block.workMs,
          block.restMs,
          ...block.ladder.flatMap(({ workMs, restMs }) => [workMs, restMs]),
          block.restBetweenRoundsMs ?? block.restMs,
          block.restBetweenSetsMs,
          block.leadInMs,
          block.workMs / 2,
        ),
        rounds: [block.rounds, block.rounds * block.sets],
        sets: [block.sets],
      };
    case 'hold':
      return {
        seconds:
          block.by === 'seconds'
            ? seconds(block.holdMs, block.restMs, block.sideChangeMs, block.leadInMs)
            : undefined,
        breaths: block.by === 'breaths' ? [block.breaths] : undefined,
      };
    case 'laps':
      return { laps: [block.laps] };
    default:
      return {};
  }
}

/**
 * What the script says how often and how long is what is planned. English texts; others are not
 * read.
 */
export function numbersAsPlanned({ lesson }: Pick<ToCheck, 'lesson'>): Hit[] {
  if (!/^en\b/.test(lesson.settings.language)) return [];
  return blocksOf(lesson).flatMap((block): Hit[] => {
    const figures = figuresOf(block);
    for (const said of block.script.matchAll(SAID)) {
      const [words, number = '', unit = ''] = said;
      const allowed = figures[UNITS[unit.toLowerCase()] ?? 'times'];
      const value = numbers.get(number.toLowerCase()) ?? Number(number);
      const [planned] = allowed ?? [];
      if (planned === undefined || allowed?.includes(value)) continue;
      const instead =
        numbers.has(number.toLowerCase()) &&
        Number.isInteger(planned) &&
        planned >= 1 &&
        planned <= LARGEST
          ? inEnglish(planned)
          : String(planned);
      const at = said.index;
      return [
        {
          place: [block.id, words],
          blockId: block.id,
          figures: {
            words,
            planned,
            unit: planned === 1 ? unit.replace(/s$/i, '') : unit,
            instead,
          },
          remedy: {
            change: changeBlock(block.id, (draft) =>
              rewriteScript(
                draft,
                draft.script.slice(0, at) + instead + draft.script.slice(at + number.length),
              ),
            ),
          },
        },
      ];
    }
    return [];
  });
}
