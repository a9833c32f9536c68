import { Alert, Button, Paper, Stack, Typography } from '@mui/material';
import { editNames, LIMITS, type EditKind, type EditOf } from '@zest/core/lesson';
import type { ComponentType } from 'react';
import { UndoOfLesson } from '../../ui/draft.ts';
import { LengthField } from '../../ui/fields.tsx';
import type { FieldsProps } from './fields-of-change.tsx';
import { missingIn } from './new-edit.ts';
import { overlayFields } from './overlay-fields.tsx';
import { pictureFields } from './picture-fields.tsx';

const MOMENT = { min: 0, max: LIMITS.targetMs.max };

/** Kinds that are not here have nothing to say. */
const fieldsOf: { [K in EditKind]?: ComponentType<FieldsProps<K>> } = {
  ...pictureFields,
  ...overlayFields,
};

interface ChangeFormProps extends FieldsProps<EditKind> {
  isNew: boolean;
  onDone: () => void;
  /** A place is to hold in the whole lesson. */
  onEverywhere: (edit: EditOf<'place'>) => void;
  onCancel: () => void;
}

/** What is said about one change, until it is done. */
export function ChangeForm({
  edit,
  isNew,
  takes,
  source,
  onChange,
  onDone,
  onEverywhere,
  onCancel,
}: ChangeFormProps) {
  const missing = missingIn(edit);
  // The table pairs each kind with its own fields.
  const Fields = fieldsOf[edit.kind] as ComponentType<FieldsProps<EditKind>> | undefined;
  return (
    // The change is no part of the lesson yet, so undo in its fields is not the lesson's.
    <UndoOfLesson value={false}>
      <Paper
        variant="outlined"
        component="section"
        aria-label={editNames[edit.kind]}
        sx={{ p: 1.5, borderColor: 'primary.main' }}
      >
        <Typography component="h2" variant="h3" sx={{ fontSize: '1.05rem', mb: 1.5 }}>
          {editNames[edit.kind]}
        </Typography>
        <Stack
          direction="row"
          useFlexGap
          sx={{ flexWrap: 'wrap', gap: 1.25, alignItems: 'center' }}
        >
          {'fromMs' in edit ? (
            <>
              <LengthField
                label="From"
                value={edit.fromMs}
                range={MOMENT}
                onChange={(fromMs) => onChange({ ...edit, fromMs })}
                sx={{ width: 110 }}
              />
              <LengthField
                label="To"
                value={edit.toMs}
                range={MOMENT}
                onChange={(toMs) => onChange({ ...edit, toMs })}
                sx={{ width: 110 }}
              />
            </>
          ) : (
            'atMs' in edit && (
              <LengthField
                label="At"
                value={edit.atMs}
                range={MOMENT}
                onChange={(atMs) => onChange({ ...edit, atMs })}
                sx={{ width: 110 }}
              />
            )
          )}
          {Fields && <Fields edit={edit} takes={takes} source={source} onChange={onChange} />}
        </Stack>
        {missing && (
          <Alert severity="info" sx={{ mt: 1.5 }}>
            {missing}
          </Alert>
        )}
        <Stack direction="row" sx={{ gap: 1, mt: 1.5 }}>
          <Button variant="contained" disabled={missing !== null} onClick={onDone}>
            {isNew ? 'Do it' : 'Change it'}
          </Button>
          {edit.kind === 'place' && (
            <Button onClick={() => onEverywhere(edit)}>In the whole lesson</Button>
          )}
          <Button onClick={onCancel}>Leave it</Button>
        </Stack>
      </Paper>
    </UndoOfLesson>
  );
}
