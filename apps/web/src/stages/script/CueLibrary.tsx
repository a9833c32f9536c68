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
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { api, problemText } from '../../app/api.ts';
import { makeId } from '../../app/ids.ts';
import { useNotice } from '../../app/notice.tsx';
import { groupBy } from '@zest/core/results';
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
    if (made.data)
      set(teacherText('script.put-cue-library'), (d) => void (d.entryId = made.data.id));
    else notice(problemText(made.error) ?? teacherText('script.library-did-not-take'));
  };
  const update = async () => {
    if (!entry) return;
    const saved = await saveEntry(entryOfCue(cue, entry.skill, entry.id));
    notice(
      saved.error
        ? (problemText(saved.error) ?? teacherText('script.library-was-not-changed'))
        : teacherText('script.library-says-way-now'),
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
        {teacherText('script.keep-cue-library')}
      </Button>
    );
  }
  if (!cueDiffers(cue, entry)) {
    return (
      <Typography variant="body2" color="text.secondary">
        {teacherText('script.library-used', { uses: entry.uses })}
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
        {teacherText('script.differs-from-library')}
      </Button>
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => setAnchor(null)}
        onClick={() => setAnchor(null)}
      >
        <MenuItem
          onClick={() =>
            set(teacherText('script.update-cue'), (d) => void Object.assign(d, fromEntry(entry)))
          }
        >
          {teacherText('script.update-take-library-s', { text: entry.text })}
        </MenuItem>
        <MenuItem onClick={() => void update()}>
          {teacherText('script.change-library', { text: cue.text })}
        </MenuItem>
        <MenuItem
          onClick={() => set(teacherText('script.detach-cue'), (d) => void (d.entryId = null))}
        >
          {teacherText('script.detach-keep-one')}
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
    if (made.error) notice(problemText(made.error) ?? teacherText('script.library-did-not-take'));
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
        {teacherText('script.from-cue-library')}
      </Button>
      <Dialog
        open={isOpen}
        onClose={() => setOpen(false)}
        fullWidth
        maxWidth="sm"
        aria-labelledby="library-title"
      >
        <DialogTitle id="library-title">{teacherText('script.cue-library')}</DialogTitle>
        <DialogContent>
          <Stack spacing={1} sx={{ pt: 1 }}>
            <TextField
              label={teacherText('script.find-cue-skill')}
              value={wanted}
              onChange={(event) => setWanted(event.target.value)}
            />
            {library.data?.length === 0 && (
              <Typography>{teacherText('script.nothing-here-yet-press')}</Typography>
            )}
            {isFull && (
              <Typography color="error">
                {teacherText('script.block-has-cues-which', { cues: LIMITS.cues })}
              </Typography>
            )}
            {bySkill.map(([skill, ofSkill]) => (
              <div key={skill}>
                <Typography component="h3" variant="h3">
                  {skill || teacherText('script.no-skill')}
                </Typography>
                <List dense disablePadding>
                  {ofSkill.map((entry) => (
                    <ListItem
                      key={entry.id}
                      disablePadding
                      secondaryAction={
                        <IconButton
                          aria-label={teacherText('script.take-out-library', { text: entry.text })}
                          onClick={async () => {
                            const gone = await deleteEntry(entry.id);
                            if (gone.error)
                              notice(problemText(gone.error) ?? teacherText('script.still-there'));
                            else
                              notice(
                                teacherText('script.out-library-lessons-keep', {
                                  text: entry.text,
                                }),
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
                            teacherText('script.cue-from-library'),
                            (d) => void d.cues.push(cueOfEntry(entry, makeId)),
                            false,
                          );
                          setOpen(false);
                        }}
                      >
                        <ListItemText
                          primary={entry.text}
                          secondary={[
                            entry.bodyPart,
                            entry.reason,
                            teacherText('script.used', { uses: entry.uses }),
                          ]
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
