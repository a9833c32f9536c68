import {
  Button,
  Dialog,
  DialogContent,
  DialogTitle,
  IconButton,
  List,
  ListItem,
  ListItemButton,
  ListItemText,
  Menu,
  MenuItem,
  Stack,
  TextField,
  Typography,
} from '@mui/material';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import {
  cueDiffers,
  cueOfEntry,
  entryOfCue,
  fromEntry,
  LIMITS,
  type Block,
  type Cue,
} from '@zest/core/lesson';
import type { StoredCueEntry } from '@zest/contract';
import { useState } from 'react';
import { api, problemText } from '../../app/api.ts';
import { makeId } from '../../app/ids.ts';
import { useNotice } from '../../app/notice.tsx';
import { groupBy } from '../../ui/group.ts';
import { useChange } from '../../ui/use-change.ts';

/**
 * How a cue stands to the library: not in it, as it is there, or changed on one side; and what to
 * do about it.
 */
export function LibraryState({ block, cue, at }: { block: Block; cue: Cue; at: number }) {
  const change = useChange(block);
  const notice = useNotice();
  const library = api.useCueLibraryQuery().data;
  const [makeEntry] = api.useMakeCueEntryMutation();
  const [saveEntry] = api.useSaveCueEntryMutation();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const set = (label: string, recipe: (draft: Cue) => void) =>
    change(label, (d) => void (d.cues[at] && recipe(d.cues[at])), false);
  const entry = library?.find(({ id }) => id === cue.entryId);
  const put = async () => {
    const { id: _id, ...body } = entryOfCue(cue, block.skill, 'new');
    const made = await makeEntry(body);
    if (made.data) set('Put the cue in the library', (d) => void (d.entryId = made.data.id));
    else notice(problemText(made.error) ?? 'The library did not take the cue.');
  };
  const update = async () => {
    if (!entry) return;
    const saved = await saveEntry(entryOfCue(cue, entry.skill, entry.id));
    notice(
      saved.error
        ? (problemText(saved.error) ?? 'The library was not changed.')
        : 'The library says it this way now. Other lessons are asked before theirs change.',
    );
  };
  if (library === undefined) return null;
  if (!entry) {
    return (
      <Button
        size="small"
        sx={{ alignSelf: 'start', minHeight: 28, py: 0 }}
        disabled={cue.text.trim() === ''}
        onClick={() => void put()}
      >
        Keep in the cue library
      </Button>
    );
  }
  if (!cueDiffers(cue, entry)) {
    return (
      <Typography variant="body2" color="text.secondary">
        As in the library, used {entry.uses === 1 ? 'once' : `${entry.uses} times`}.
      </Typography>
    );
  }
  return (
    <>
      <Button
        size="small"
        color="secondary"
        sx={{ alignSelf: 'start', minHeight: 28, py: 0 }}
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        Differs from the library …
      </Button>
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => setAnchor(null)}
        onClick={() => setAnchor(null)}
      >
        <MenuItem
          onClick={() => set('Update the cue', (d) => void Object.assign(d, fromEntry(entry)))}
        >
          Update: take the library’s “{entry.text}”
        </MenuItem>
        <MenuItem onClick={() => void update()}>Change the library to “{cue.text}”</MenuItem>
        <MenuItem onClick={() => set('Detach the cue', (d) => void (d.entryId = null))}>
          Detach: keep this one as it is
        </MenuItem>
      </Menu>
    </>
  );
}

/** The teacher's cues by skill, to put into a block or to take out of the library. */
export function CueLibrary({ block }: { block: Block }) {
  const change = useChange(block);
  const notice = useNotice();
  const [isOpen, setOpen] = useState(false);
  const [wanted, setWanted] = useState('');
  const library = api.useCueLibraryQuery();
  const [deleteEntry] = api.useDeleteCueEntryMutation();
  const [makeEntry] = api.useMakeCueEntryMutation();
  const putBack = async ({ uses: _uses, ...entry }: StoredCueEntry) => {
    const made = await makeEntry(entry);
    if (made.error) notice(problemText(made.error) ?? 'The library did not take the cue.');
  };
  const entries = (library.data ?? []).filter(({ text, skill }) =>
    `${text} ${skill}`.toLowerCase().includes(wanted.trim().toLowerCase()),
  );
  // The block's own skill comes first.
  const bySkill = [...groupBy(entries, ({ skill }) => skill)].sort(
    ([a], [b]) => Number(b === block.skill) - Number(a === block.skill) || a.localeCompare(b),
  );
  const isFull = block.cues.length >= LIMITS.cues;
  return (
    <>
      <Button size="small" sx={{ alignSelf: 'start' }} onClick={() => setOpen(true)}>
        From the cue library
      </Button>
      <Dialog
        open={isOpen}
        onClose={() => setOpen(false)}
        fullWidth
        maxWidth="sm"
        aria-labelledby="library-title"
      >
        <DialogTitle id="library-title">Cue library</DialogTitle>
        <DialogContent>
          <Stack spacing={1} sx={{ pt: 1 }}>
            <TextField
              label="Find a cue or skill"
              value={wanted}
              onChange={(event) => setWanted(event.target.value)}
            />
            {library.data?.length === 0 && (
              <Typography>
                Nothing here yet. Press “Keep in the cue library” at a cue you will use again.
              </Typography>
            )}
            {isFull && (
              <Typography color="error">
                This block has {LIMITS.cues} cues, which is all it takes.
              </Typography>
            )}
            {bySkill.map(([skill, ofSkill]) => (
              <div key={skill}>
                <Typography component="h3" variant="h3">
                  {skill || 'No skill'}
                </Typography>
                <List dense disablePadding>
                  {ofSkill.map((entry) => (
                    <ListItem
                      key={entry.id}
                      disablePadding
                      secondaryAction={
                        <IconButton
                          aria-label={`Take “${entry.text}” out of the library`}
                          onClick={async () => {
                            const gone = await deleteEntry(entry.id);
                            if (gone.error) notice(problemText(gone.error) ?? 'It is still there.');
                            else
                              notice(
                                `“${entry.text}” is out of the library. Lessons keep their own.`,
                                () => void putBack(entry),
                              );
                          }}
                        >
                          <DeleteOutlineIcon fontSize="small" />
                        </IconButton>
                      }
                    >
                      <ListItemButton
                        disabled={isFull}
                        onClick={() => {
                          change(
                            'Cue from the library',
                            (d) => void d.cues.push(cueOfEntry(entry, makeId)),
                            false,
                          );
                          setOpen(false);
                        }}
                      >
                        <ListItemText
                          primary={entry.text}
                          secondary={[entry.bodyPart, entry.reason, `used ${entry.uses} ×`]
                            .filter((text) => text !== '')
                            .join(' · ')}
                        />
                      </ListItemButton>
                    </ListItem>
                  ))}
                </List>
              </div>
            ))}
          </Stack>
        </DialogContent>
      </Dialog>
    </>
  );
}
