import {
  Alert,
  Box,
  Button,
  IconButton,
  LinearProgress,
  Paper,
  Stack,
  TextField,
  Typography,
} from '@mui/material';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import DownloadIcon from '@mui/icons-material/Download';
import {
  retakeReasons,
  routes,
  THUMB,
  urlOf,
  type ChangeTake,
  type RetakeReason,
  type Take,
} from '@zest/contract';
import type { Block } from '@zest/core/lesson';
import { clockText, instantOfFrame } from '@zest/core/time';
import { useRef, useState, useSyncExternalStore } from 'react';
import { api, problemText } from '../../app/api.ts';
import { useNotice } from '../../app/notice.tsx';
import { useAppDispatch } from '../../app/store.ts';
import { ChoiceField } from '../../ui/fields.tsx';
import { groupBy } from '../../ui/group.ts';
import {
  chooseTake,
  continueUpload,
  leaveTake,
  runningUploads,
  subscribeUploads,
  type RunningUpload,
} from './uploads.ts';

function stateWords(take: Take, upload: RunningUpload | undefined): string {
  switch (take.state) {
    case 'uploading':
      if (upload) return `Uploading, ${Math.round(upload.part * 100)} %`;
      return take.source === 'upload'
        ? 'Not all of it has arrived'
        : 'Being filmed, or broken off: what is missing comes from the device that filmed ' +
            'it as soon as it opens this lesson';
    case 'waiting':
      return 'Waiting for its working copy';
    case 'working':
      return `Making the working copy, ${Math.round(take.progress * 100)} %`;
    case 'ready':
      return (
        `${clockText(instantOfFrame(take.frames))}${take.hasSound ? '' : ', no sound'}` +
        `${take.marked ? ', lies by its sync mark' : ''}`
      );
    case 'failed':
      return 'Cannot be used';
  }
}

/** What the marks of a take filmed here say about its recording; null when all is well. */
function stallWords({ state, source, performance, marked }: Take): string | null {
  if (state !== 'ready' || source === 'upload' || !performance) return null;
  if (!marked)
    return (
      'Its sync mark cannot be heard: the machine could not keep up, or filming was ' +
      'broken off. Say by hand where the block starts, or film it again with other ' +
      'programs closed.'
    );
  if (marked.endMs !== null && marked.rate === null)
    return (
      'The machine could not keep up: time is missing from this recording, and ' +
      'overlays may not fall where they should. Film it again with other programs ' +
      'closed.'
    );
  return null;
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

/** What is wrong with a take or its upload. */
function TakeWarnings({ take, upload }: { take: Take; upload: RunningUpload | undefined }) {
  const warnings = [take.state === 'ready' && take.damage, upload?.fault, stallWords(take)];
  return (
    <>
      {take.fault && (
        <Alert severity="error" sx={{ mt: 1 }}>
          {take.fault}
        </Alert>
      )}
      {warnings.map(
        (text) =>
          text && (
            <Alert key={text} severity="warning" sx={{ mt: 1 }}>
              {text}
            </Alert>
          ),
      )}
    </>
  );
}

/** A working copy made by an earlier version can be made anew. */
function Renewal({ take }: { take: Take }) {
  const [renew] = api.useRenewTakeMutation();
  return (
    <Alert
      severity="info"
      sx={{ mt: 1 }}
      action={
        <Button
          size="small"
          disabled={take.renewal === 'under way'}
          onClick={() => void renew(take.id)}
        >
          {take.renewal === 'under way' ? 'Being made …' : 'Make it anew'}
        </Button>
      }
    >
      {take.renewal === 'under way'
        ? 'Its working copy is being made anew. Until then the old one is shown.'
        : 'Made by an earlier version of the program. Made anew, it is as sharp as it was ' +
          'filmed, up to 1080 lines, in the colours of the phone.'}
    </Alert>
  );
}

function TakeCard({
  take,
  block,
  upload,
}: {
  take: Take;
  block: Block;
  upload: RunningUpload | undefined;
}) {
  const dispatch = useAppDispatch();
  const [change] = api.useChangeTakeMutation();
  const notice = useNotice();
  const set = (part: ChangeTake) =>
    void change({ takeId: take.id, ...part }).then(
      (answer) => answer.error && notice(problemText(answer.error) ?? 'That was not kept.'),
    );
  const isChosen = block.footage?.takeId === take.id;
  const putInBin = () => {
    // One that cannot be used is no loss to its block.
    if (isChosen) dispatch(leaveTake(block));
    set({ inBin: true });
  };
  const part = take.state === 'uploading' ? (upload?.part ?? 0) : take.progress;
  return (
    <Paper
      variant="outlined"
      sx={{ p: 1.5, borderColor: isChosen ? 'primary.main' : 'divider', borderWidth: 2 }}
      data-testid="take"
    >
      <Stack direction="row" spacing={1.5} sx={{ alignItems: 'center' }}>
        {take.state === 'ready' && (
          <Box
            sx={{
              width: THUMB.width * 0.7,
              height: THUMB.height * 0.7,
              flex: 'none',
              borderRadius: 1,
              backgroundImage: `url(${urlOf(routes.takeThumbs, { takeId: take.id })})`,
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
        {take.bytes > 0 && (
          <IconButton
            aria-label={`Save the original of ${take.name}`}
            component="a"
            href={urlOf(routes.takeOriginal, { takeId: take.id })}
            download
          >
            <DownloadIcon fontSize="small" />
          </IconButton>
        )}
        <IconButton
          aria-label={`Put ${take.name} in the bin`}
          disabled={isChosen && take.state !== 'failed'}
          onClick={putInBin}
        >
          <DeleteOutlineIcon fontSize="small" />
        </IconButton>
      </Stack>
      {(take.state === 'working' || (take.state === 'uploading' && upload)) && (
        <LinearProgress
          aria-label={`Progress of ${take.name}`}
          variant="determinate"
          value={part * 100}
          sx={{ mt: 1 }}
        />
      )}
      <TakeWarnings take={take} upload={upload} />
      {take.state === 'uploading' && take.source === 'upload' && (!upload || upload.fault) && (
        <ContinueButton take={take} />
      )}
      {take.renewal !== 'none' && <Renewal take={take} />}
      {take.duplicateOf && (
        <Alert severity="info" sx={{ mt: 1 }}>
          The very same file is here already. One of the two can go in the bin.
        </Alert>
      )}
      {take.state === 'ready' && <Judgement take={take} block={block} onSet={set} />}
    </Paper>
  );
}

const reasons: readonly (readonly [RetakeReason | 'nothing', string])[] = [
  ['nothing', 'nothing wrong'],
  ...retakeReasons.map((reason) => [reason, reason] as const),
];

/** The sound tracks of a take's file, with what tells them apart. */
const trackChoices = ({ soundTracks }: Take): (readonly [string, string])[] =>
  soundTracks.map(({ name, levelDb }, index) => [
    String(index),
    `${index + 1}${name ? ` ${name}` : ''}: ${levelDb === null ? 'silent' : `${Math.round(levelDb)} dB`}`,
  ]);

interface JudgementProps {
  take: Take;
  block: Block;
  onSet: (part: ChangeTake) => void;
}

/** What the teacher says of a take, and whether it is the one used. */
function Judgement({ take, block, onSet }: JudgementProps) {
  const dispatch = useAppDispatch();
  return (
    <Stack
      direction="row"
      useFlexGap
      sx={{ gap: 1, mt: 1.5, flexWrap: 'wrap', alignItems: 'center' }}
    >
      {block.footage?.takeId !== take.id && (
        <Button size="small" onClick={() => dispatch(chooseTake(block, take.id, null))}>
          Use this take
        </Button>
      )}
      <ChoiceField
        label={`What is wrong with ${take.name}`}
        value={take.reason ?? 'nothing'}
        choices={reasons}
        onChange={(reason) => onSet({ reason: reason === 'nothing' ? null : reason })}
        sx={{ width: 170 }}
      />
      {take.soundTracks.length > 1 && (
        <ChoiceField
          label={`Sound of ${take.name}`}
          value={String(take.soundTrack)}
          choices={trackChoices(take)}
          onChange={(track) => onSet({ soundTrack: Number(track) })}
          sx={{ width: 200 }}
        />
      )}
      <NoteField take={take} onKeep={(note) => onSet({ note })} />
    </Stack>
  );
}

/** Kept when the field is left, so that a word is one change. */
function NoteField({ take, onKeep }: { take: Take; onKeep: (note: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <TextField
      label={`Note on ${take.name}`}
      value={typed ?? take.note}
      slotProps={{ htmlInput: { maxLength: 400 } }}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => {
        if (typed !== null && typed !== take.note) onKeep(typed);
        setTyped(null);
      }}
      sx={{ flex: '1 1 140px' }}
    />
  );
}

/** The block's takes, those of one performance together; the one in use is outlined. */
export function TakeList({ block, takes }: { block: Block; takes: Take[] }) {
  const uploads = useSyncExternalStore(subscribeUploads, runningUploads);
  const performances = [...groupBy(takes, ({ id, performance }) => performance?.id ?? id).values()];
  return (
    <Stack spacing={1.5}>
      {performances.map((cameras) => (
        <Stack key={cameras[0]?.id} spacing={0.75}>
          {cameras.length > 1 && (
            <Typography variant="body2">One performance, {cameras.length} cameras:</Typography>
          )}
          {cameras.map((take) => (
            <TakeCard key={take.id} take={take} block={block} upload={uploads.get(take.id)} />
          ))}
        </Stack>
      ))}
    </Stack>
  );
}
