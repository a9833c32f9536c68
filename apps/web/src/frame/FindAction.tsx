import {
  Autocomplete,
  Box,
  Dialog,
  IconButton,
  TextField,
  Tooltip,
  Typography,
} from '@mui/material';
import ManageSearchIcon from '@mui/icons-material/ManageSearch';
import { teacherText } from '@zest/core/words';
import { useEffect, useState } from 'react';
import { isTyping } from '../ui/typing.ts';
import { allCommands, type Command } from '../app/commands.ts';

/** Key that opens the list of actions. */
export const FIND_KEY = '.';

/** Actions of which every word asked for begins a word. */
function matching(commands: Command[], asked: string): Command[] {
  const wanted = asked
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== '');
  return commands.filter(({ name, group }) => {
    const words = `${name} ${group}`.toLowerCase().split(/[^\p{L}\p{N}]+/u);
    return wanted.every((want) => words.some((word) => word.startsWith(want)));
  });
}

/** Every action of the window by name, a key press away. */
export function FindAction() {
  const [commands, setCommands] = useState<Command[] | null>(null);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.altKey || event.key !== FIND_KEY) return;
      // With Ctrl it is no text, wherever one types.
      if (isTyping(event.target) && !event.ctrlKey && !event.metaKey) return;
      event.preventDefault();
      setCommands(allCommands());
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const close = () => setCommands(null);
  return (
    <>
      <Tooltip title={teacherText('frame.find-action-keys')} describeChild>
        <IconButton
          aria-label={teacherText('frame.find-action')}
          onClick={() => setCommands(allCommands())}
        >
          <ManageSearchIcon />
        </IconButton>
      </Tooltip>
      <Dialog
        open={commands !== null}
        onClose={close}
        fullWidth
        maxWidth="sm"
        slotProps={{
          paper: {
            'aria-label': teacherText('frame.find-action'),
            sx: { position: 'absolute', top: 40, p: 1.5 },
          },
        }}
      >
        <Autocomplete
          options={commands ?? []}
          groupBy={({ group }) => group}
          getOptionLabel={({ name }) => name}
          getOptionKey={({ group, name }) => `${group} ${name}`}
          filterOptions={(options, { inputValue }) => matching(options, inputValue)}
          autoHighlight
          openOnFocus
          value={null}
          onChange={(_event, command) => {
            close();
            // After the dialog has given the focus back, so that the action may take it.
            if (command) setTimeout(command.run);
          }}
          renderOption={({ key, ...props }, { name, keys }) => (
            <Box component="li" key={key} {...props} sx={{ display: 'flex', gap: 2 }}>
              <Typography sx={{ flex: 1 }}>{name}</Typography>
              {keys && <Typography color="text.secondary">{keys}</Typography>}
            </Box>
          )}
          renderInput={(params) => (
            <TextField {...params} autoFocus label={teacherText('frame.what-would-you-like')} />
          )}
          noOptionsText="Nothing by that name here."
        />
      </Dialog>
    </>
  );
}
