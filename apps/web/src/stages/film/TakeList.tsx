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
import { teacherText } from '@zest/core/words';
import { useRef, useState, useSyncExternalStore } from 'react';
import { api, problemText } from '../../app/api.ts';
import { useNotice } from '../../app/notice.tsx';
import { useAppDispatch } from '../../app/store.ts';
import { ChoiceField } from '../../ui/fields.tsx';
import { groupBy } from '@zest/core/results';
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
      if (upload) return teacherText('film.uploading', { n: Math.round(upload.part * 100) });
      return take.source === 'upload'
        ? teacherText('film.not-all-has-arrived')
        : teacherText('film.being-filmed-broken-off');
    case 'waiting':
      return teacherText('film.waiting-working-copy');
    case 'working':
      return teacherText('film.making-working-copy', { n: Math.round(take.progress * 100) });
    case 'ready':
      return teacherText('film.take-ready', {
        time: clockText(instantOfFrame(take.frames)),
        hasSound: String(take.hasSound),
        isMarked: String(take.marked !== null),
      });
    case 'failed':
      return teacherText('film.unusable-heading');
  }
}

/** What the marks of a take filmed here say about its recording; null when all is well. */
function stallWords({ state, source, performance, marked }: Take): string | null {
  if (state !== 'ready' || source === 'upload' || !performance) return null;
  if (!marked) return teacherText('film.sync-mark-cannot-heard');
  if (marked.endMs !== null && marked.rate === null)
    return teacherText('film.machine-could-not-keep');
  return null;
}

function ContinueButton({ take }: { take: Take }) {
  const input = useRef<HTMLInputElement>(null);
  const dispatch = useAppDispatch();
  return (
    <>
      <Button size="small" onClick={() => input.current?.click()}>
        {teacherText('film.continue-choose-again', { name: take.name })}
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        aria-label={teacherText('film.file', { name: take.name })}
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
          {take.renewal === 'under way'
            ? teacherText('film.being-made')
            : teacherText('film.make-anew')}
        </Button>
      }
    >
      {take.renewal === 'under way'
        ? teacherText('film.working-copy-being-made')
        : teacherText('film.made-earlier-version-program')}
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
      (answer) =>
        answer.error && notice(problemText(answer.error) ?? teacherText('film.was-not-kept')),
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
            aria-label={teacherText('film.save-original', { name: take.name })}
            component="a"
            href={urlOf(routes.takeOriginal, { takeId: take.id })}
            download
          >
            <DownloadIcon fontSize="small" />
          </IconButton>
        )}
        <IconButton
          aria-label={teacherText('film.put-bin', { name: take.name })}
          disabled={isChosen && take.state !== 'failed'}
          onClick={putInBin}
        >
          <DeleteOutlineIcon fontSize="small" />
        </IconButton>
      </Stack>
      {(take.state === 'working' || (take.state === 'uploading' && upload)) && (
        <LinearProgress
          aria-label={teacherText('film.progress', { name: take.name })}
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
          {teacherText('film.very-same-file-here')}
        </Alert>
      )}
      {take.state === 'ready' && <Judgement take={take} block={block} onSet={set} />}
    </Paper>
  );
}

const reasons: readonly (readonly [RetakeReason | 'nothing', string])[] = [
  ['nothing', teacherText('film.nothing-wrong')],
  ...retakeReasons.map((reason) => [reason, teacherText(`retake.${reason}`)] as const),
];

/** The sound tracks of a take's file, with what tells them apart. */
const trackChoices = ({ soundTracks }: Take): (readonly [string, string])[] =>
  soundTracks.map(({ name, levelDb }, index) => {
    const level = levelDb === null ? teacherText('film.silent') : `${Math.round(levelDb)} dB`;
    return [String(index), `${index + 1}${name ? ` ${name}` : ''}: ${level}`];
  });

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
          {teacherText('film.use-take')}
        </Button>
      )}
      <ChoiceField
        label={teacherText('film.what-wrong', { name: take.name })}
        value={take.reason ?? 'nothing'}
        choices={reasons}
        onChange={(reason) => onSet({ reason: reason === 'nothing' ? null : reason })}
        sx={{ width: 170 }}
      />
      {take.soundTracks.length > 1 && (
        <ChoiceField
          label={teacherText('film.sound', { name: take.name })}
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
      label={teacherText('film.take-note')}
      value={typed ?? take.note}
      slotProps={{
        htmlInput: { 'aria-label': teacherText('film.note', { name: take.name }), maxLength: 400 },
      }}
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
            <Typography variant="body2">
              {teacherText('film.one-performance-cameras', { count: cameras.length })}
            </Typography>
          )}
          {cameras.map((take) => (
            <TakeCard key={take.id} take={take} block={block} upload={uploads.get(take.id)} />
          ))}
        </Stack>
      ))}
    </Stack>
  );
}
