import { Typography } from '@mui/material';
import { LIMITS, overlaySlots, pointJoints, type EditOf } from '@zest/core/lesson';
import { cueMomentNames } from '../../ui/cue-moments.ts';
import { ChoiceField, LengthField, same, TextLine } from '../../ui/fields.tsx';
import { PartField, type FieldsProps } from './fields-of-change.tsx';
import { slotName } from '../../ui/slot-name.ts';

const slotChoices = overlaySlots.map((slot) => [slot, `the ${slotName(slot)}`] as const);

/** Also by nothing at all, as it stands while a figure is typed anew. */
const isEarlier = ({ byMs }: EditOf<'shift'>) => byMs < 0 || Object.is(byMs, -0);

function PointFields({ edit, onChange }: FieldsProps<'point'>) {
  return (
    <>
      <ChoiceField
        label="At the performer’s"
        value={edit.joint}
        choices={same(pointJoints)}
        onChange={(joint) => onChange({ ...edit, joint })}
        sx={{ width: 170 }}
      />
      <TextLine
        label="What to say about it"
        value={edit.text}
        most={LIMITS.title}
        onChange={(text) => onChange({ ...edit, text })}
        sx={{ flex: '1 1 100%' }}
      />
    </>
  );
}

function NoteFields({ edit, onChange }: FieldsProps<'note'>) {
  return (
    <TextLine
      label="What is right"
      value={edit.text}
      most={LIMITS.line}
      onChange={(text) => onChange({ ...edit, text })}
      sx={{ flex: '1 1 100%' }}
    />
  );
}

function CueFields({ edit, onChange }: FieldsProps<'cue'>) {
  return (
    <>
      <TextLine
        label="Cue"
        value={edit.text}
        most={LIMITS.line}
        onChange={(text) => onChange({ ...edit, text })}
        sx={{ flex: '1 1 100%' }}
      />
      <ChoiceField
        label="When it applies"
        value={edit.moment}
        choices={cueMomentNames}
        onChange={(moment) => onChange({ ...edit, moment })}
      />
    </>
  );
}

function HideFields({ edit, onChange }: FieldsProps<'hide'>) {
  return (
    <ChoiceField
      label="What is left away"
      value={edit.slot}
      choices={slotChoices}
      onChange={(slot) => onChange({ ...edit, slot })}
    />
  );
}

function ShiftFields({ edit, onChange }: FieldsProps<'shift'>) {
  return (
    <>
      <ChoiceField
        label="What is moved"
        value={edit.slot}
        choices={slotChoices}
        onChange={(slot) => onChange({ ...edit, slot })}
        sx={{ width: 150 }}
      />
      <LengthField
        label="By"
        value={Math.abs(edit.byMs)}
        range={{ min: 0, max: LIMITS.shiftMs.max }}
        onChange={(ms) => onChange({ ...edit, byMs: isEarlier(edit) ? -ms : ms })}
        sx={{ width: 100 }}
      />
      <ChoiceField
        label="Which way"
        value={isEarlier(edit) ? 'earlier' : 'later'}
        choices={same(['earlier', 'later'])}
        onChange={(way) =>
          onChange({ ...edit, byMs: Math.abs(edit.byMs) * (way === 'earlier' ? -1 : 1) })
        }
        sx={{ width: 120 }}
      />
    </>
  );
}

function PlaceFields({ edit, onChange }: FieldsProps<'place'>) {
  return (
    <>
      <ChoiceField
        label="What stands elsewhere"
        value={edit.slot}
        choices={slotChoices}
        onChange={(slot) => onChange({ ...edit, slot })}
      />
      <Typography variant="body2" sx={{ flex: '1 1 100%' }}>
        Click its left upper corner on the picture, or say it in figures.
      </Typography>
      <PartField label="Across, %" value={edit.x} onChange={(x) => onChange({ ...edit, x })} />
      <PartField label="Down, %" value={edit.y} onChange={(y) => onChange({ ...edit, y })} />
    </>
  );
}

/** What is said about changes of overlays, by kind. */
export const overlayFields = {
  point: PointFields,
  note: NoteFields,
  cue: CueFields,
  hide: HideFields,
  shift: ShiftFields,
  place: PlaceFields,
};
