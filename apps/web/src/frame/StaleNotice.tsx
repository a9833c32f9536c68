import {
  Alert,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogContentText,
  DialogTitle,
  List,
  ListItem,
  ListItemText,
  ToggleButton,
  ToggleButtonGroup,
} from '@mui/material';
import { differencesOf, type Chosen, type Difference, type HowChanged } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useEffect, useMemo, useState } from 'react';
import { api, problemText } from '../app/api.ts';
import { keepBoth, keepMine, takeTheirs } from '../app/autosave.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';

const words: Readonly<Record<HowChanged, string>> = {
  same: teacherText('frame.left-was'),
  changed: teacherText('frame.changed'),
  new: teacherText('frame.added'),
  deleted: teacherText('frame.deleted'),
};

function DifferenceRow({
  difference: { title, mine, theirs, isConflict },
  chosen,
  onChoose,
}: {
  difference: Difference;
  chosen: Chosen;
  onChoose: (chosen: Chosen) => void;
}) {
  return (
    <ListItem
      divider
      disableGutters
      secondaryAction={
        isConflict && (
          <ToggleButtonGroup
            exclusive
            size="small"
            value={chosen}
            onChange={(_event, next: Chosen | null) => next && onChoose(next)}
            aria-label={teacherText('frame.version', { title })}
          >
            <ToggleButton value="mine">{teacherText('frame.mine')}</ToggleButton>
            <ToggleButton value="theirs">{teacherText('frame.theirs')}</ToggleButton>
          </ToggleButtonGroup>
        )
      }
      sx={{ pr: isConflict ? 22 : 0 }}
    >
      <ListItemText
        primary={title}
        secondary={teacherText('frame.here-there', {
          here: words[mine],
          there: words[theirs],
          isConflict: String(isConflict),
        })}
      />
    </ListItem>
  );
}

/**
 * What both versions are, block by block, with a choice where both changed the same. All of it
 * comes at once: nothing moves under a hand that presses.
 */
function BothVersions({ lessonId, onClose }: { lessonId: string; onClose: () => void }) {
  const open = useAppSelector((state) => state.lesson.open);
  const [read, reading] = api.useLazyRevisionQuery();
  const [chosen, setChosen] = useState<ReadonlyMap<string | null, Chosen>>(new Map());
  const dispatch = useAppDispatch();
  const revision = open?.save.kind === 'stale' ? open.save.revision : null;
  useEffect(() => {
    if (revision !== null) void read({ lessonId, revision });
  }, [read, lessonId, revision]);
  const theirs = reading.data?.lesson;
  const differences = useMemo(
    () => (open && theirs ? differencesOf(open.stored, open.edited.lesson, theirs) : []),
    [open, theirs],
  );
  const problem = problemText(reading.error);
  const together =
    theirs && reading.data?.revision !== undefined
      ? { lesson: theirs, revision: reading.data.revision }
      : null;
  const choose = (choice: ReturnType<typeof keepMine>) => {
    onClose();
    void dispatch(choice);
  };
  if (!problem && !together)
    return (
      <DialogContent sx={{ minHeight: 120 }}>
        {teacherText('frame.reading-other-version')}
      </DialogContent>
    );
  return (
    <>
      <DialogContent>
        <DialogContentText>{teacherText('frame.another-window-device-person')}</DialogContentText>
        {problem && <Alert severity="error">{problem}</Alert>}
        {together && (
          <>
            <List dense aria-label={teacherText('frame.what-differs')}>
              {differences.map((difference) => (
                <DifferenceRow
                  key={difference.blockId ?? ''}
                  difference={difference}
                  chosen={chosen.get(difference.blockId) ?? 'mine'}
                  onChoose={(next) => setChosen(new Map([...chosen, [difference.blockId, next]]))}
                />
              ))}
            </List>
            <Button
              variant="contained"
              onClick={() => choose(keepBoth(together, chosen))}
              autoFocus
            >
              {teacherText('frame.put-both-together')}
            </Button>
          </>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={() => choose(takeTheirs())}>
          {teacherText('frame.use-other-version')}
        </Button>
        <Button onClick={() => choose(keepMine())}>
          {teacherText('frame.keep-window-s-version')}
        </Button>
        <Button onClick={onClose}>{teacherText('frame.later')}</Button>
      </DialogActions>
    </>
  );
}

/**
 * Says that another window or person saved first, without taking the keyboard from who is typing,
 * and asks what to keep. Either way both versions stay in the history.
 */
export function StaleNotice() {
  const save = useAppSelector((state) => state.lesson.open?.save);
  const id = useAppSelector((state) => state.lesson.open?.id);
  const [isComparing, setComparing] = useState(false);
  const isStale = save?.kind === 'stale';
  const isOpen = isStale && isComparing;
  const close = () => setComparing(false);
  return (
    <>
      {isStale && (
        <Alert
          severity="warning"
          variant="outlined"
          sx={{
            mx: 2,
            mt: 1,
            py: 0,
            alignItems: 'center',
            color: 'text.primary',
            bgcolor: 'background.paper',
            borderWidth: 2,
          }}
          action={
            <Button
              color="inherit"
              variant="outlined"
              size="small"
              onClick={() => setComparing(true)}
            >
              {teacherText('frame.compare-versions')}
            </Button>
          }
        >
          {teacherText('frame.stale')}
        </Alert>
      )}
      <Dialog open={isOpen} onClose={close} aria-labelledby="stale-title" fullWidth maxWidth="sm">
        <DialogTitle id="stale-title">{teacherText('frame.stale-heading')}</DialogTitle>
        {isOpen && id !== undefined && <BothVersions lessonId={id} onClose={close} />}
      </Dialog>
    </>
  );
}
