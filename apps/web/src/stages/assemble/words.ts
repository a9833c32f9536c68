import { editNames, type Edit } from '@zest/core/lesson';
import { lengthText } from '@zest/core/time';

/** What each thing on screen is called. */
export const slotNames = {
  clock: 'clock',
  counter: 'count',
  cue: 'cue',
  caution: 'caution',
  side: 'side',
  board: 'board',
} as const;

/** A moment of a block to a tenth of a second. */
export const momentText = (ms: number) => `${(ms / 1000).toFixed(1)} s`;

function details(edit: Edit, takeName: (takeId: string) => string): string {
  switch (edit.kind) {
    case 'again':
      return `${edit.times > 1 ? `${edit.times} times, ` : ''}${edit.speed === 100 ? 'at full speed' : `at ${edit.speed} %`}, sound ${edit.sound}`;
    case 'freeze':
      return `${lengthText(edit.lengthMs)}${edit.text ? `, “${edit.text}”` : ''}`;
    case 'card':
      return `${lengthText(edit.lengthMs)}, “${edit.heading}”${edit.court ? ', with the floor drawn' : ''}`;
    case 'picture':
      return lengthText(edit.lengthMs);
    case 'closer':
      return `${edit.zoom / 100} times as large${edit.path.length > 0 ? ', following' : ''}`;
    case 'turn':
      return edit.quarters === 2
        ? 'upside down'
        : `a quarter ${edit.quarters === 1 ? 'to the right' : 'to the left'}`;
    case 'beside':
      return `${takeName(edit.takeId)}, ${edit.layout}`;
    case 'instead':
      return `${takeName(edit.takeId)}, ${edit.picture && edit.sound ? 'picture and sound' : edit.picture ? 'picture only' : 'sound only'}`;
    case 'note':
    case 'cue':
      return `“${edit.text}”`;
    case 'hide':
      return slotNames[edit.slot];
    case 'shift':
      return `${slotNames[edit.slot]}, ${lengthText(Math.abs(edit.byMs))} ${edit.byMs < 0 ? 'earlier' : 'later'}`;
    case 'taps':
      return `${edit.taps.filter(({ missed }) => !missed).length} repetitions${edit.taps.some(({ missed }) => missed) ? `, ${edit.taps.filter(({ missed }) => missed).length} not counted` : ''}`;
    case 'point':
      return `${edit.joint}${edit.text ? `, “${edit.text}”` : ''}`;
    case 'said':
      return `“${edit.text}”`;
    case 'place':
      return slotNames[edit.slot];
    case 'fade':
      return `over ${lengthText(edit.lengthMs)}`;
    default:
      return '';
  }
}

function place(edit: Edit): string {
  if ('fromMs' in edit) return `${momentText(edit.fromMs)} to ${momentText(edit.toMs)}`;
  return 'atMs' in edit ? `at ${momentText(edit.atMs)}` : '';
}

/** One line for a change by hand: what, where in its block, and how. */
export function editText(edit: Edit, takeName: (takeId: string) => string): string {
  return [editNames[edit.kind], place(edit), details(edit, takeName)]
    .filter((part) => part !== '')
    .join(' · ');
}
