import { Typography } from '@mui/material';
import { LIMITS, overlaySlots, pointJoints, type EditOf, valueName } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { cueMomentNames } from '../../ui/cue-moments.ts';
import { ChoiceField, LengthField, named, TextLine } from '../../ui/fields.tsx';
import { PartField, type FieldsProps } from './fields-of-change.tsx';
import { slotName } from '../../ui/slot-name.ts';

const slotChoices = overlaySlots.map((slot) => [slot, `the ${slotName(slot)}`] as const);

/** Also by nothing at all, as it stands while a figure is typed anew. */
const isEarlier = ({ byMs }: EditOf<'shift'>) => byMs < 0 || Object.is(byMs, -0);

function PointFields({ edit, onChange }: FieldsProps<'point'>) {
  return (
    <>
      <ChoiceField
        label={teacherText('assemble.performer-s')}
        value={edit.joint}
        choices={named(pointJoints, valueName)}
        onChange={(joint) => onChange({ ...edit, joint })}
        sx={{ width: 170 }}
      />
      <TextLine
        label={teacherText('assemble.what-say-about')}
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
      label={teacherText('assemble.what-right')}
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
        label={teacherText('assemble.cue')}
        value={edit.text}
        most={LIMITS.line}
        onChange={(text) => onChange({ ...edit, text })}
        sx={{ flex: '1 1 100%' }}
      />
      <ChoiceField
        label={teacherText('assemble.when-applies')}
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
      label={teacherText('assemble.what-left-away')}
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
        label={teacherText('assemble.what-moved')}
        value={edit.slot}
        choices={slotChoices}
        onChange={(slot) => onChange({ ...edit, slot })}
        sx={{ width: 150 }}
      />
      <LengthField
        label={teacherText('assemble.by')}
        value={Math.abs(edit.byMs)}
        range={{ min: 0, max: LIMITS.shiftMs.max }}
        onChange={(ms) => onChange({ ...edit, byMs: isEarlier(edit) ? -ms : ms })}
        sx={{ width: 100 }}
      />
      <ChoiceField
        label={teacherText('assemble.which-way')}
        value={isEarlier(edit) ? 'earlier' : 'later'}
        choices={named(['earlier', 'later'], valueName)}
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
        label={teacherText('assemble.what-stands-elsewhere')}
        value={edit.slot}
        choices={slotChoices}
        onChange={(slot) => onChange({ ...edit, slot })}
      />
      <Typography variant="body2" sx={{ flex: '1 1 100%' }}>
        {teacherText('assemble.click-corner')}
      </Typography>
      <PartField
        label={teacherText('assemble.across')}
        value={edit.x}
        onChange={(x) => onChange({ ...edit, x })}
      />
      <PartField
        label={teacherText('assemble.down')}
        value={edit.y}
        onChange={(y) => onChange({ ...edit, y })}
      />
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
