import { Alert, Box, Button, IconButton, LinearProgress, Paper, Stack, Typography } from '@mui/material';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import { THUMB, type Take } from '@zest/contract';
import type { Block } from '@zest/core/lesson';
import { clockText, instantOfFrame } from '@zest/core/time';
import { useRef, useSyncExternalStore } from 'react';
import { api } from '../../app/api.ts';
import { useAppDispatch } from '../../app/store.ts';
import { chooseTake, continueUpload, runningUploads, subscribeUploads, type RunningUpload } from './uploads.ts';

function stateWords(take: Take, upload: RunningUpload | undefined): string {
  switch (take.state) {
    case 'uploading':
      return upload ? `Uploading, ${Math.round(upload.part * 100)} %` : 'Not all of it has arrived';
    case 'waiting':
      return 'Waiting for its working copy';
    case 'working':
      return `Making the working copy, ${Math.round(take.progress * 100)} %`;
    case 'ready':
      return `${clockText(instantOfFrame(take.frames))}${take.hasSound ? '' : ', no sound'}`;
    case 'failed':
      return 'Cannot be used';
  }
}

function ContinueButton({ take }: { take: Take }) {
  const input = useRef<HTMLInputElement>(null);
  const dispatch = useAppDispatch();
  return (
    <>
      <Button size="small" onClick={() => input.current?.click()}>
        Continue: choose “{take.name}” again
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        aria-label={`The file of ${take.name}`}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) dispatch(continueUpload(take, file));
        }}
      />
    </>
  );
}

function TakeCard({ take, block, upload }: { take: Take; block: Block; upload: RunningUpload | undefined }) {
  const dispatch = useAppDispatch();
  const [remove] = api.useDeleteTakeMutation();
  const isChosen = block.footage?.takeId === take.id;
  const part = take.state === 'uploading' ? (upload?.part ?? 0) : take.progress;
  return (
    <Paper variant="outlined" sx={{ p: 1.5, borderColor: isChosen ? 'primary.main' : 'divider', borderWidth: 2 }} data-testid="take">
      <Stack direction="row" spacing={1.5} sx={{ alignItems: 'center' }}>
        {take.state === 'ready' && (
          <Box
            sx={{
              width: THUMB.width * 0.7,
              height: THUMB.height * 0.7,
              flex: 'none',
              borderRadius: 1,
              backgroundImage: `url(/api/takes/${take.id}/thumbs)`,
              backgroundSize: 'auto 100%',
              backgroundPosition: `-${Math.floor(take.thumbs / 2) * THUMB.width * 0.7}px 0`,
            }}
          />
        )}
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <Typography noWrap sx={{ fontWeight: 650 }}>
            {take.name}
          </Typography>
          <Typography variant="body2" color="text.secondary">
            {stateWords(take, upload)}
          </Typography>
        </Box>
        <IconButton aria-label={`Delete ${take.name}`} disabled={isChosen} onClick={() => void remove(take.id)}>
          <DeleteOutlineIcon fontSize="small" />
        </IconButton>
      </Stack>
      {(take.state === 'working' || (take.state === 'uploading' && upload)) && (
        <LinearProgress aria-label={`Progress of ${take.name}`} variant="determinate" value={part * 100} sx={{ mt: 1 }} />
      )}
      {take.fault && (
        <Alert severity="error" sx={{ mt: 1 }}>
          {take.fault}
        </Alert>
      )}
      {upload?.fault && (
        <Alert severity="warning" sx={{ mt: 1 }}>
          {upload.fault}
        </Alert>
      )}
      {take.state === 'uploading' && (!upload || upload.fault) && <ContinueButton take={take} />}
      {take.state === 'ready' && !isChosen && (
        <Button size="small" onClick={() => dispatch(chooseTake(block, take.id, 0))}>
          Use this take
        </Button>
      )}
    </Paper>
  );
}

/** The block's takes; the one in use is outlined. */
export function TakeList({ block, takes }: { block: Block; takes: Take[] }) {
  const uploads = useSyncExternalStore(subscribeUploads, runningUploads);
  return (
    <Stack spacing={1.5}>
      {takes.map((take) => (
        <TakeCard key={take.id} take={take} block={block} upload={uploads.get(take.id)} />
      ))}
    </Stack>
  );
}
