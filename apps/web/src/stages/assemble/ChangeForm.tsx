import { Alert, Button, Paper, Stack, Typography } from '@mui/material';
import PlayIcon from '@mui/icons-material/PlayArrow';
import { LIMITS, type EditKind, type EditOf } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import type { ComponentType } from 'react';
import { UndoOfLesson } from '../../ui/draft.ts';
import { LengthField } from '../../ui/fields.tsx';
import { ChangeMark } from './ChangeMark.tsx';
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
  /** Why the change has no place where it is; null where it has. */
  fault: string | null;
  /** Plays it as it would be. */
  onTry: () => void;
  onDone: () => void;
  /** A place is to hold in the whole lesson. */
  onEverywhere: (edit: EditOf<'place'>) => void;
  onCancel: () => void;
}

/** Where in its block a change is. */
function Moments({ edit, onChange }: Pick<ChangeFormProps, 'edit' | 'onChange'>) {
  const field = (label: string, value: number, to: (ms: number) => void) => (
    <LengthField label={label} value={value} range={MOMENT} onChange={to} sx={{ width: 110 }} />
  );
  if ('fromMs' in edit)
    return (
      <>
        {field(teacherText('change.from'), edit.fromMs, (fromMs) => onChange({ ...edit, fromMs }))}
        {field(teacherText('change.to'), edit.toMs, (toMs) => onChange({ ...edit, toMs }))}
      </>
    );
  return 'atMs' in edit
    ? field(teacherText('change.at'), edit.atMs, (atMs) => onChange({ ...edit, atMs }))
    : null;
}

/** What is said about one change, while the stage shows it, until it is made. */
export function ChangeForm({
  edit,
  isNew,
  takes,
  source,
  fault,
  onChange,
  onTry,
  onDone,
  onEverywhere,
  onCancel,
}: ChangeFormProps) {
  const missing = missingIn(edit);
  const name = teacherText(`change.${edit.kind}`);
  // The table pairs each kind with its own fields.
  const Fields = fieldsOf[edit.kind] as ComponentType<FieldsProps<EditKind>> | undefined;
  return (
    // The change is no part of the lesson yet, so undo in its fields is not the lesson's.
    <UndoOfLesson value={false}>
      <Paper
        variant="outlined"
        component="form"
        aria-label={name}
        sx={{ p: 1.5, borderColor: 'primary.main', borderWidth: 2 }}
        onSubmit={(event) => {
          event.preventDefault();
          if (missing === null) onDone();
        }}
      >
        <Typography
          component="h2"
          variant="h3"
          sx={{ display: 'flex', gap: 1, alignItems: 'center', fontSize: '1.05rem', mb: 1.5 }}
        >
          <ChangeMark kind={edit.kind} /> {name}
        </Typography>
        <Stack
          direction="row"
          useFlexGap
          sx={{ flexWrap: 'wrap', gap: 1.25, alignItems: 'center' }}
        >
          <Moments edit={edit} onChange={onChange} />
          {Fields && <Fields edit={edit} takes={takes} source={source} onChange={onChange} />}
        </Stack>
        {(missing ?? fault) && (
          <Alert severity={missing ? 'info' : 'warning'} sx={{ mt: 1.5 }}>
            {missing ?? fault}
          </Alert>
        )}
        <Stack
          direction="row"
          useFlexGap
          // In view however much there is to say.
          sx={{
            ...{ gap: 1, mt: 1.5, mb: -1.5, py: 1.5, flexWrap: 'wrap' },
            ...{ position: 'sticky', bottom: -12, zIndex: 1, bgcolor: 'background.paper' },
          }}
        >
          {missing === null && (
            <>
              <Button type="submit" variant="contained">
                {teacherText(isNew ? 'change.do' : 'change.keep')}
              </Button>
              <Button variant="outlined" startIcon={<PlayIcon />} onClick={onTry}>
                {teacherText('change.try')}
              </Button>
            </>
          )}
          {edit.kind === 'place' && (
            <Button onClick={() => onEverywhere(edit)}>{teacherText('change.everywhere')}</Button>
          )}
          <Button onClick={onCancel}>{teacherText('change.cancel')}</Button>
        </Stack>
      </Paper>
    </UndoOfLesson>
  );
}
