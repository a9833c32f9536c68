import { editName, valueName, type Edit, type EditKind, type EditOf } from '@zest/core/lesson';
import { lengthText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { slotName } from '../../ui/slot-name.ts';

/** A moment of a block to a tenth of a second. */
export const momentText = (ms: number) => `${(ms / 1000).toFixed(1)} s`;

type Details = Partial<{ [K in EditKind]: (edit: EditOf<K>, takeName: TakeName) => string }>;
type TakeName = (takeId: string) => string;

const quoted = ({ text }: { text: string }) => (text === '' ? '' : teacherText('quoted', { text }));
const ofTake = ({ takeId }: { takeId: string }, takeName: TakeName) => takeName(takeId);
const listed = (...parts: readonly string[]) => parts.filter((part) => part !== '').join(', ');

/** How each change is made, beside what it is and where. */
const details: Details = {
  again: ({ times, speed, sound }) =>
    teacherText('edit.again', { times, speed, sound: valueName(sound) }),
  freeze: (edit) => listed(lengthText(edit.lengthMs), quoted(edit)),
  card: ({ lengthMs, heading, court }) =>
    listed(
      lengthText(lengthMs),
      quoted({ text: heading }),
      court ? teacherText('edit.with-floor') : '',
    ),
  picture: ({ lengthMs }) => lengthText(lengthMs),
  closer: ({ zoom, path }) =>
    listed(
      teacherText('edit.zoom', { times: zoom / 100 }),
      path.length > 0 ? teacherText('edit.following') : '',
    ),
  turn: ({ quarters }) => teacherText('edit.turn', { quarters }),
  beside: (edit, takeName) => listed(ofTake(edit, takeName), valueName(edit.layout)),
  instead: (edit, takeName) =>
    listed(
      ofTake(edit, takeName),
      teacherText('edit.instead', {
        what: edit.picture && edit.sound ? 'both' : edit.picture ? 'picture' : 'sound',
      }),
    ),
  note: quoted,
  cue: quoted,
  said: quoted,
  hide: ({ slot }) => slotName(slot),
  place: ({ slot }) => slotName(slot),
  shift: ({ slot, byMs }) =>
    listed(
      slotName(slot),
      teacherText('edit.shift', { way: byMs < 0 ? 'earlier' : 'later', byMs: Math.abs(byMs) }),
    ),
  taps: ({ taps }) => {
    const missed = taps.filter((tap) => tap.missed).length;
    return listed(
      teacherText('edit.taps', { n: taps.length - missed }),
      missed > 0 ? teacherText('edit.missed', { n: missed }) : '',
    );
  },
  point: (edit) => listed(valueName(edit.joint), quoted(edit)),
  fade: ({ lengthMs }) => teacherText('edit.fade', { lengthMs }),
};

function detailsOf<K extends EditKind>(edit: EditOf<K>, takeName: TakeName): string {
  const say = details[edit.kind as K];
  return say ? say(edit, takeName) : '';
}

function place(edit: Edit): string {
  if ('fromMs' in edit)
    return teacherText('edit.from-to', {
      from: momentText(edit.fromMs),
      to: momentText(edit.toMs),
    });
  return 'atMs' in edit ? teacherText('edit.at', { at: momentText(edit.atMs) }) : '';
}

/** One line for a change by hand: what, where in its block, and how. */
export function editText(edit: Edit, takeName: TakeName): string {
  return [editName(edit.kind), place(edit), detailsOf(edit, takeName)]
    .filter((part) => part !== '')
    .join(' · ');
}
