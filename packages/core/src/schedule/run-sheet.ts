import { clockText, lengthText } from '../time/index.ts';
import type { SpanKind } from './row.ts';
import type { Schedule } from './schedule.ts';

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
 * called when.
 */
export function runSheet(schedule: Schedule): RunSheetLine[] {
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
      const at = (ms: number) => ({
        videoMs: planned.startMs + ms,
        studentMs: planned.studentStartMs + ms,
      });
      const pause = planned.block.pauseAfter;
      const extra = pause ? ` (then ${lengthText(pause.practiceMs)} off the video)` : '';
      lines.push({
        ...at(0),
        level: 'block',
        text: planned.block.title + extra,
        durationMs: planned.durationMs,
      });
      const inner: (RunSheetLine & { order: number })[] = [
        ...planned.spans.map((span) => ({
          ...at(span.startMs),
          level: 'span' as const,
          text: spanText(span),
          durationMs: span.endMs - span.startMs,
          order: 1,
        })),
        ...planned.calls.map((call) => ({
          ...at(call.atMs),
          level: 'call' as const,
          text: call.text,
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

/** What a round of the span is called, where it is not a round. */
const roundWord: Partial<Record<SpanKind, string>> = {
  rep: 'set',
  'set-rest': 'set',
  move: 'run',
  play: 'try',
  score: 'try',
  count: 'time',
};

function spanText(span: Schedule['blocks'][number]['spans'][number]): string {
  const parts = [span.label];
  if (span.rep !== undefined) parts.push(`${span.rep} of ${span.reps}`);
  if (span.side && span.movement !== undefined)
    parts.push(span.halves ? `${span.side} first, then change` : span.side);
  if (span.rounds !== undefined && span.rounds > 1) {
    parts.push(`${roundWord[span.kind] ?? 'round'} ${span.round}`);
  }
  return parts.join(', ');
}

/** One line as text: both clocks, indent by level, length. */
export function runSheetText(lines: RunSheetLine[]): string {
  const indent = { section: '', block: '  ', span: '    ', call: '      ! ' };
  return lines
    .map((line) => {
      const length = line.durationMs > 0 ? `  [${lengthText(line.durationMs)}]` : '';
      return `${clockText(line.videoMs).padStart(7)}  ${clockText(line.studentMs).padStart(7)}  ${indent[line.level]}${line.text}${length}`;
    })
    .join('\n');
}
