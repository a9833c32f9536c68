import { choiceText, type Block, type BlockKind } from '../lesson/index.ts';
import { clockText, lengthText, spanLength } from '../time/index.ts';
import { labelText, lessonWord, paperWord, type PaperWord } from '../words/index.ts';
import type { Span, SpanKind } from './timeline-builder.ts';
import { waitedMs, type Schedule } from './schedule.ts';

/** One line of the run sheet; both instants in milliseconds from the lesson's start. */
export interface RunSheetLine {
  videoMs: number;
  studentMs: number;
  level: 'section' | 'block' | 'span' | 'call';
  text: string;
  /** Length in milliseconds; 0 for a call. */
  durationMs: number;
}

/**
 * The run sheet in order of time: sections, their blocks, the spans of each block and what is
 * called when; in the lesson's language.
 */
export function runSheet(schedule: Schedule, language: string): RunSheetLine[] {
  const lines: RunSheetLine[] = [];
  for (const section of schedule.sections) {
    lines.push({
      videoMs: section.startMs,
      studentMs: section.studentStartMs,
      level: 'section',
      text: section.section.title,
      durationMs: section.durationMs,
    });
    for (const planned of section.blocks) {
      const waits = planned.spans.filter(({ offMs }) => offMs > 0);
      const at = (ms: number) => ({
        videoMs: planned.startMs + ms,
        studentMs: planned.studentStartMs + ms + waitedMs(waits, ms),
      });
      const pause = planned.block.pauseAfter;
      lines.push({
        ...at(0),
        level: 'block',
        text: pause
          ? paperWord(language, 'plan.then-off', {
              what: planned.block.title,
              length: lengthText(pause.practiceMs),
            })
          : planned.block.title,
        durationMs: planned.durationMs,
      });
      const inner: (RunSheetLine & { order: number })[] = [
        ...planned.spans.map((span) => ({
          ...at(span.startMs),
          level: 'span' as const,
          text: spanText(span, planned.block, language),
          durationMs: spanLength(span) + span.offMs,
          order: 1,
        })),
        ...planned.calls.map((call) => ({
          ...at(call.atMs),
          level: 'call' as const,
          text: labelText(call.label, language),
          durationMs: 0,
          order: call.kind === 'start' ? 2 : 0,
        })),
      ];
      inner.sort((a, b) => a.videoMs - b.videoMs || a.order - b.order);
      for (const { order: _order, ...line } of inner) lines.push(line);
    }
  }
  return lines;
}

/** What a round of a block is called, where it is not a round. */
const roundWords: Partial<Record<BlockKind, PaperWord>> = {
  reps: 'round.set',
  routine: 'round.run',
  game: 'round.try',
  counts: 'round.time',
};

/** After the last round of a circuit's set, the set is over. */
const roundWord = (span: SpanKind, block: BlockKind): PaperWord =>
  span === 'set-rest' ? 'round.set' : (roundWords[block] ?? 'round.round');

function spanText(span: Span, block: Block, language: string): string {
  const { rep, reps, side, round, rounds } = span;
  const parts = [labelText(span.label, language)];
  if (span.kind === 'ask' && block.kind === 'question')
    parts.push(...(block.choices ?? []).map(choiceText));
  if (rep !== undefined && reps !== undefined)
    parts.push(lessonWord(language, 'count.round', { round: rep, rounds: reps }));
  if (side && span.movement !== undefined)
    parts.push(
      span.halves
        ? paperWord(language, 'span.first', { side })
        : lessonWord(language, `side.${side}`),
    );
  if (round !== undefined && rounds !== undefined && rounds > 1)
    parts.push(paperWord(language, roundWord(span.kind, block.kind), { n: round }));
  return parts.join(', ');
}

/** One line as text: both clocks, indent by level, length. */
export function runSheetText(lines: RunSheetLine[]): string {
  const indent = { section: '', block: '  ', span: '    ', call: '      ! ' };
  return lines
    .map((line) => {
      const length = line.durationMs > 0 ? `  [${lengthText(line.durationMs)}]` : '';
      return (
        `${clockText(line.videoMs).padStart(7)}  ${clockText(line.studentMs).padStart(7)}` +
        `  ${indent[line.level]}${line.text}${length}`
      );
    })
    .join('\n');
}
