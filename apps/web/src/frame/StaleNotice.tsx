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
import { useEffect, useMemo, useState } from 'react';
import { api, problemText } from '../app/api.ts';
import { keepBoth, keepMine, takeTheirs } from '../app/autosave.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';

const words: Readonly<Record<HowChanged, string>> = {
  same: 'left as it was',
  changed: 'changed',
  new: 'added',
  deleted: 'deleted',
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
            aria-label={`Version of ${title}`}
          >
            <ToggleButton value="mine">Mine</ToggleButton>
            <ToggleButton value="theirs">Theirs</ToggleButton>
          </ToggleButtonGroup>
        )
      }
      sx={{ pr: isConflict ? 22 : 0 }}
    >
      <ListItemText
        primary={title}
        secondary={`Here ${words[mine]}, there ${words[theirs]}${isConflict ? ': choose' : ''}`}
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
    return <DialogContent sx={{ minHeight: 120 }}>Reading the other version …</DialogContent>;
  return (
    <>
      <DialogContent>
        <DialogContentText>
          Another window, device or person saved this lesson after you opened it here. Put both
          together, or choose one; the other stays in the lesson’s history and can be brought back
          at any time.
        </DialogContentText>
        {problem && <Alert severity="error">{problem}</Alert>}
        {together && (
          <>
            <List dense aria-label="What differs">
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
              Put both together
            </Button>
          </>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={() => choose(takeTheirs())}>Use the other version</Button>
        <Button onClick={() => choose(keepMine())}>Keep this window’s version</Button>
        <Button onClick={onClose}>Later</Button>
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
              Compare versions
            </Button>
          }
        >
          This lesson was changed in another window. Your changes are kept in this browser and not
          saved until you choose.
        </Alert>
      )}
      <Dialog open={isOpen} onClose={close} aria-labelledby="stale-title" fullWidth maxWidth="sm">
        <DialogTitle id="stale-title">This lesson was changed in another window</DialogTitle>
        {isOpen && id !== undefined && <BothVersions lessonId={id} onClose={close} />}
      </Dialog>
    </>
  );
}
