import {
  Alert,
  Box,
  Button,
  IconButton,
  List,
  ListItem,
  Paper,
  Stack,
  Typography,
} from '@mui/material';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import { dropText, type DroppedEdit } from '@zest/core/assembly';
import type { Block, Edit, EditKind } from '@zest/core/lesson';
import { FileButton } from '../../ui/FileButton.tsx';
import { momentActions, needsTake, stretchActions } from './new-edit.ts';
import type { OwnStretch } from './stretch.ts';
import { editText, momentText } from './words.ts';

interface ChangePanelProps {
  block: Block;
  stretch: OwnStretch | null;
  hasOtherTake: boolean;
  dropped: readonly DroppedEdit[];
  takeName: (takeId: string) => string;
  onBegin: (kind: EditKind) => void;
  onTap: () => void;
  onPicture: (file: File) => void;
  onOpen: (edit: Edit) => void;
  onRemove: (blockId: string, edit: Edit) => void;
}

interface MadeChangesProps {
  edits: readonly Edit[];
  textOf: (edit: Edit) => string;
  onOpen: (edit: Edit) => void;
  onRemove: (edit: Edit) => void;
}

function MadeChanges({ edits, textOf, onOpen, onRemove }: MadeChangesProps) {
  return (
    <Paper variant="outlined" sx={{ p: 1.5 }} component="section" aria-label="Changed by hand">
      <Typography component="h2" variant="h3" sx={{ fontSize: '1.05rem' }}>
        Changed by hand
      </Typography>
      <List dense disablePadding>
        {edits.map((edit) => (
          <ListItem key={edit.id} disableGutters sx={{ gap: 0.5 }}>
            <Button
              size="small"
              onClick={() => onOpen(edit)}
              sx={{
                flex: 1,
                minWidth: 0,
                justifyContent: 'flex-start',
                textAlign: 'left',
                textTransform: 'none',
              }}
            >
              {textOf(edit)}
            </Button>
            <IconButton
              size="small"
              aria-label={`Take back: ${textOf(edit)}`}
              onClick={() => onRemove(edit)}
            >
              <DeleteOutlineIcon fontSize="small" />
            </IconButton>
          </ListItem>
        ))}
      </List>
    </Paper>
  );
}

/** What can be changed by hand in the block, and what was. */
export function ChangePanel({
  block,
  stretch,
  hasOtherTake,
  dropped,
  takeName,
  onBegin,
  onTap,
  onPicture,
  onOpen,
  onRemove,
}: ChangePanelProps) {
  const lost = new Set(dropped.map(({ edit }) => edit));
  const made = block.edits.filter((edit) => !lost.has(edit));
  const textOf = (edit: Edit) => editText(edit, takeName);
  const isFilmed = block.footage !== null;
  const filmedOnly: ReadonlySet<EditKind> = new Set(['closer', 'blur', 'mirror', 'turn', 'beside']);
  return (
    <Stack spacing={1.5}>
      <Paper variant="outlined" sx={{ p: 1.5 }} component="section" aria-label="Change this">
        <Typography component="h2" variant="h3" sx={{ fontSize: '1.05rem' }} noWrap>
          {block.title || 'Untitled'}
        </Typography>
        <Typography
          variant="body2"
          color="text.secondary"
          sx={{ mb: 1 }}
          data-testid="stretch-words"
        >
          {stretch
            ? `From ${momentText(stretch.fromMs)} to ${momentText(stretch.toMs)} of the block:`
            : 'Draw a stretch on the time rail, click a thing in the lanes, or press F and T.'}
        </Typography>
        <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 0.75 }}>
          {stretchActions.map(([kind, label]) => (
            <Button
              key={kind}
              size="small"
              variant="outlined"
              disabled={
                !stretch ||
                (needsTake.has(kind) && !hasOtherTake) ||
                (filmedOnly.has(kind) && !isFilmed)
              }
              onClick={() => onBegin(kind)}
            >
              {label}
            </Button>
          ))}
        </Stack>
        <Typography variant="body2" color="text.secondary" sx={{ mt: 1.5, mb: 0.75 }}>
          At the frame shown:
        </Typography>
        <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 0.75 }}>
          {momentActions.map(([kind, label]) => (
            <Button key={kind} size="small" variant="outlined" onClick={() => onBegin(kind)}>
              {label}
            </Button>
          ))}
          <FileButton
            label="Put in a picture"
            accept="image/png,image/jpeg,image/webp"
            onFile={onPicture}
          />
        </Stack>
        <Typography variant="body2" color="text.secondary" sx={{ mt: 1.5, mb: 0.75 }}>
          The whole block:
        </Typography>
        <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 0.75 }}>
          <Button size="small" variant="outlined" onClick={onTap}>
            Count by taps
          </Button>
          <Button size="small" variant="outlined" onClick={() => onBegin('place')}>
            Put elsewhere
          </Button>
          <Button
            size="small"
            variant="outlined"
            disabled={block.edits.some(({ kind }) => kind === 'fade')}
            onClick={() => onBegin('fade')}
          >
            Fade in
          </Button>
        </Stack>
      </Paper>
      {made.length > 0 && (
        <MadeChanges
          edits={made}
          textOf={textOf}
          onOpen={onOpen}
          onRemove={(edit) => onRemove(block.id, edit)}
        />
      )}
      {dropped.length > 0 && (
        <Alert severity="warning" data-testid="not-kept">
          <strong>Could not be kept</strong>
          {dropped.map(({ blockId, edit, why }) => (
            <Box key={edit.id} sx={{ mt: 0.5 }}>
              {textOf(edit)}: {dropText(why)}{' '}
              <Button size="small" onClick={() => onRemove(blockId, edit)}>
                Remove it
              </Button>
            </Box>
          ))}
        </Alert>
      )}
    </Stack>
  );
}
