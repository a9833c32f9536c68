import { Alert, Box, Button, IconButton, Paper, Stack, Typography } from '@mui/material';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import { dropText, type DroppedEdit } from '@zest/core/assembly';
import type { Block, Edit, EditKind } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useId, type ReactNode } from 'react';
import { runningColours } from '../../app/theme.ts';
import { takeFile } from '../../ui/FileButton.tsx';
import { slotName, type OverlaySlot } from '../../ui/slot-name.ts';
import { ChangeMark } from './ChangeMark.tsx';
import {
  blockActions,
  momentActions,
  needsFootage,
  needsTake,
  overlayActions,
  stretchActions,
  type ChangeAction,
} from './new-edit.ts';
import type { OwnStretch } from './stretch.ts';
import { editText, momentText } from './words.ts';
import './change.css';

/** What can be done now, by what it is done to; a key begins it as well. */
export interface Offered {
  /** Null: nothing is chosen. */
  stretch: readonly ChangeAction[] | null;
  overlay: readonly ChangeAction[];
  moment: readonly ChangeAction[];
  block: readonly ChangeAction[];
}

/** What can be done with what is chosen; all of it, where nothing is. */
export function offeredFor(
  block: Block,
  stretch: OwnStretch | null,
  slot: OverlaySlot | null,
  hasOtherTake: boolean,
): Offered {
  const isPossible = ([kind]: ChangeAction) =>
    (hasOtherTake || !needsTake.has(kind)) &&
    (block.footage !== null || !needsFootage.has(kind)) &&
    (kind !== 'fade' || !block.edits.some((edit) => edit.kind === 'fade'));
  return {
    stretch: stretch && stretchActions.filter(isPossible),
    overlay: stretch && slot ? overlayActions : [],
    moment: stretch ? [] : momentActions,
    block: stretch ? [] : blockActions.filter(isPossible),
  };
}

interface TilesProps {
  title: string;
  actions: readonly ChangeAction[];
  onBegin: (kind: EditKind) => void;
  children?: ReactNode;
}

function Tiles({ title, actions, onBegin, children }: TilesProps) {
  if (actions.length === 0) return null;
  return (
    <Box role="group" aria-label={title}>
      <Typography variant="body2" color="text.secondary" sx={{ mb: 0.5 }}>
        {title}
      </Typography>
      <div className="change-tiles">
        {actions.map(([kind, key]) => (
          <button
            key={kind}
            type="button"
            className="change-tile"
            aria-keyshortcuts={key}
            onClick={() => onBegin(kind)}
          >
            <ChangeMark kind={kind} />
            {teacherText(`change.${kind}`)}
            <kbd aria-hidden="true">{key.length === 1 ? key.toUpperCase() : key.slice(0, 3)}</kbd>
          </button>
        ))}
        {children}
      </div>
    </Box>
  );
}

/** The tile that asks for a picture. */
function PictureTile({ onPicture }: { onPicture: (file: File) => void }) {
  const id = useId();
  return (
    <label className="change-tile" htmlFor={id}>
      <ChangeMark kind="picture" />
      {teacherText('change.picture')}
      <input
        id={id}
        type="file"
        className="unseen"
        accept="image/png,image/jpeg,image/webp"
        onChange={takeFile(onPicture)}
      />
    </label>
  );
}

interface MadeChangesProps {
  edits: readonly Edit[];
  textOf: (edit: Edit) => string;
  onOpen: (edit: Edit) => void;
  onRemove: (edit: Edit) => void;
}

function MadeChanges({ edits, textOf, onOpen, onRemove }: MadeChangesProps) {
  const title = teacherText('change.made');
  return (
    <Paper variant="outlined" sx={{ p: 1.5 }} component="section" aria-label={title}>
      <Typography component="h2" variant="h3" sx={{ fontSize: '1.05rem' }}>
        {title}
      </Typography>
      <Box component="ul" sx={{ p: 0, m: 0, listStyle: 'none' }}>
        {edits.map((edit) => (
          <Box
            component="li"
            key={edit.id}
            sx={{ display: 'flex', gap: 0.5, alignItems: 'center', minWidth: 0 }}
          >
            <Button
              size="small"
              startIcon={<ChangeMark kind={edit.kind} size={18} />}
              onClick={() => onOpen(edit)}
              sx={{ flex: 1, minWidth: 0, justifyContent: 'flex-start', textAlign: 'start' }}
            >
              {textOf(edit)}
            </Button>
            <IconButton
              size="small"
              aria-label={teacherText('change.take-back', { what: textOf(edit) })}
              onClick={() => onRemove(edit)}
            >
              <DeleteOutlineIcon fontSize="small" />
            </IconButton>
          </Box>
        ))}
      </Box>
    </Paper>
  );
}

interface ChangePanelProps {
  block: Block;
  offered: Offered;
  stretch: OwnStretch | null;
  slot: OverlaySlot | null;
  dropped: readonly DroppedEdit[];
  takeName: (takeId: string) => string;
  onBegin: (kind: EditKind) => void;
  onPicture: (file: File) => void;
  onOpen: (edit: Edit) => void;
  onRemove: (blockId: string, edit: Edit) => void;
}

/** What can be done with what is chosen, and what was changed by hand in the block. */
export function ChangePanel({
  block,
  offered,
  stretch,
  slot,
  dropped,
  takeName,
  onBegin,
  onPicture,
  onOpen,
  onRemove,
}: ChangePanelProps) {
  const lost = new Set(dropped.map(({ edit }) => edit));
  const made = block.edits.filter((edit) => !lost.has(edit));
  const textOf = (edit: Edit) => editText(edit, takeName);
  return (
    <Stack spacing={1.5}>
      <Paper
        variant="outlined"
        sx={{ p: 1.5, ...runningColours }}
        component="section"
        aria-label={teacherText('change.this')}
      >
        <Typography component="h2" variant="h3" sx={{ fontSize: '1.05rem' }} noWrap>
          {block.title || teacherText('untitled')}
        </Typography>
        <Typography variant="body2" sx={{ mb: 1 }} data-testid="stretch-words">
          {stretch
            ? teacherText('change.from-to', {
                from: momentText(stretch.fromMs),
                to: momentText(stretch.toMs),
              })
            : teacherText('change.choose')}
        </Typography>
        <Stack spacing={1.25}>
          <Tiles
            title={slot ? teacherText('change.of-slot', { slot: slotName(slot) }) : ''}
            actions={offered.overlay}
            onBegin={onBegin}
          />
          <Tiles
            title={teacherText('change.of-stretch')}
            actions={offered.stretch ?? []}
            onBegin={onBegin}
          />
          <Tiles title={teacherText('change.of-moment')} actions={offered.moment} onBegin={onBegin}>
            <PictureTile onPicture={onPicture} />
          </Tiles>
          <Tiles title={teacherText('change.of-block')} actions={offered.block} onBegin={onBegin} />
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
          <strong>{teacherText('change.not-kept')}</strong>
          {dropped.map(({ blockId, edit, why }) => (
            <Box key={edit.id} sx={{ mt: 0.5 }}>
              {textOf(edit)}: {dropText(why)}{' '}
              <Button size="small" onClick={() => onRemove(blockId, edit)}>
                {teacherText('change.remove')}
              </Button>
            </Box>
          ))}
        </Alert>
      )}
    </Stack>
  );
}
