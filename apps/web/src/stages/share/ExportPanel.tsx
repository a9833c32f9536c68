import {
  Alert,
  Button,
  Chip,
  FormControlLabel,
  LinearProgress,
  Stack,
  Switch,
  Typography,
} from '@mui/material';
import {
  exportFormats,
  exportHands,
  exportOrderSchema,
  exportShapes,
  exportSizes,
  routes,
  urlOf,
  type ExportOrder,
  type Job,
  type Take,
} from '@zest/contract';
import { allCues, blocksOf, type Lesson } from '@zest/core/lesson';
import { fixedSides } from '@zest/core/script';
import { clockText } from '@zest/core/time';
import { useEffect, useState } from 'react';
import { api, problemText } from '../../app/api.ts';
import { saveFirst } from '../../app/autosave.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useMaterials, useOpenLesson, useTakes } from '../../app/use-lesson.ts';
import { ChoiceField } from '../../ui/fields.tsx';

const size = new Intl.NumberFormat(undefined, { maximumFractionDigits: 1 });
const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
const sizeNames = {
  '480': '854 × 480, small',
  '720': '1280 × 720, usual',
  '1080': '1920 × 1080, large',
} as const;
const formatNames = {
  mp4: 'MP4, plays everywhere',
  webm: 'WebM, for web pages',
  gif: 'GIF, silent, one block',
} as const;
const shapeNames = { wide: 'wide, 16:9', upright: 'upright, 9:16, for phones' } as const;
/** Changes told by name before the rest is only counted. */
const MOST_NAMED = 4;
/** No block has such an id. */
const ALL = '*';
const handNames = {
  'as filmed': 'as filmed',
  'other hand': 'turned round for the other hand',
} as const;
const USUAL = exportOrderSchema.parse({});

function timeLeft(ms: number | null): string {
  if (ms === null) return '';
  return ms < 60_000
    ? `, about ${Math.max(5, Math.ceil(ms / 5_000) * 5)} s to go`
    : `, about ${Math.ceil(ms / 60_000)} min to go`;
}

function orderWords({
  size: lines,
  format,
  overlays,
  captions,
  hand,
  shape,
  language,
  blockId,
}: ExportOrder): string {
  return [
    `${lines} lines`,
    shape === 'upright' ? 'upright' : '',
    format === 'webm' ? 'WebM' : format.toUpperCase(),
    overlays ? '' : 'without overlays',
    captions ? 'captions burned in' : '',
    hand === 'other hand' ? 'for the other hand' : '',
    language === 'second' ? 'second language' : '',
    blockId ? 'one block' : '',
  ]
    .filter((word) => word !== '')
    .join(', ');
}

/** What is to be said of footage that is smaller than the picture ordered; null where none is. */
function enlargedWords({ size: lines, shape }: ExportOrder, takes: readonly Take[]): string | null {
  if (lines !== '1080' || shape !== 'wide') return null;
  const smaller = takes.filter(
    ({ size: frame }) => frame !== null && Math.min(frame.width, frame.height) < Number(lines),
  );
  if (smaller.length === 0) return null;
  const sizes = [
    ...new Set(smaller.map(({ size: frame }) => `${frame?.width} × ${frame?.height}`)),
  ];
  return (
    'Overlays come out in all 1080 lines; footage filmed smaller is enlarged (' +
    `${sizes.join(', ')}: ` +
    `${smaller.length === takes.length ? 'all of it' : `${smaller.length} of ${takes.length} takes`}` +
    ').'
  );
}

/** What an export lacks, in a line. */
function outOfDate(changed: readonly string[] | null): string {
  if (!changed) return 'Out of date: the lesson was changed after it';
  const [shown, more] = [changed.slice(0, MOST_NAMED), changed.length - MOST_NAMED];
  return `Out of date, changed since: ${shown.join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
}

/** How far an export is, and what can be done with it meanwhile. */
function Underway({ job }: { job: Job }) {
  const [cancel] = api.useCancelJobMutation();
  const [change] = api.useChangeJobMutation();
  return (
    <>
      <LinearProgress
        aria-label="Progress of the export"
        variant="determinate"
        value={job.progress * 100}
      />
      <Typography>
        {Math.round(job.progress * 100)} %, {job.message.toLowerCase()}
        {job.state === 'running' && timeLeft(job.leftMs)}. You may close this page meanwhile.
      </Typography>
      <Stack direction="row" spacing={1}>
        <Button onClick={() => void change({ jobId: job.id, held: job.state !== 'held' })}>
          {job.state === 'held' ? 'Resume' : 'Pause'}
        </Button>
        {job.state === 'queued' && (
          <Button onClick={() => void change({ jobId: job.id, first: true })}>Make it next</Button>
        )}
        <Button color="error" onClick={() => void cancel(job.id)}>
          Cancel
        </Button>
      </Stack>
    </>
  );
}

interface VerifiedProps {
  jobId: string;
  format: ExportOrder['format'];
  result: NonNullable<Job['result']>;
}

/** What came out, as it was read back from the file. */
function Verified({ jobId, format, result }: VerifiedProps) {
  return (
    <>
      <Typography color="text.secondary">
        Verified: {clockText(result.durationMs)}, {result.frames} frames,{' '}
        {size.format(result.bytes / 1e6)} MB
        {result.loudnessLufs !== null &&
          `, ${result.loudnessLufs} LUFS, true peak ${result.truePeakDb} dBTP`}
        {result.loudnessLufs === null && ', no sound'}
      </Typography>
      <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: 'wrap' }}>
        <Button variant="outlined" href={urlOf(routes.exportVideo, { jobId })}>
          {format === 'gif' ? 'GIF' : `Video (${format === 'webm' ? 'WebM' : 'MP4'})`}
        </Button>
        <Button variant="outlined" href={urlOf(routes.exportCaptions, { jobId })}>
          Captions (WebVTT)
        </Button>
        <Button href={urlOf(routes.exportSound, { jobId })}>Sound only</Button>
        <Button href={urlOf(routes.exportPoster, { jobId })}>Poster</Button>
      </Stack>
    </>
  );
}

function ExportRow({ job, revision }: { job: Job; revision: number }) {
  const isOpen = job.state === 'running' || job.state === 'queued' || job.state === 'held';
  const { result } = job;
  return (
    <Stack spacing={1} sx={{ borderTop: 1, borderColor: 'divider', pt: 1.5 }} data-testid="export">
      <Stack direction="row" useFlexGap sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography sx={{ fontWeight: 650 }}>{when.format(new Date(job.createdAt))}</Typography>
        {job.order && <Typography color="text.secondary">{orderWords(job.order)}</Typography>}
        {result && result.revision < revision && job.changedSince?.length !== 0 && (
          <Chip size="small" color="warning" label={outOfDate(job.changedSince)} />
        )}
      </Stack>
      {isOpen && <Underway job={job} />}
      {job.state === 'failed' && <Alert severity="error">{job.message}</Alert>}
      {job.state === 'cancelled' && (
        <Typography color="text.secondary">
          Cancelled. What was rendered is kept for the next export.
        </Typography>
      )}
      {result && (
        <Verified jobId={job.id} format={job.order?.format ?? USUAL.format} result={result} />
      )}
    </Stack>
  );
}

/** Files of the cut that need no rendering; made from the lesson as it is saved. */
function CutFiles({ lessonId }: { lessonId: string }) {
  return (
    <Stack spacing={1}>
      <Typography>Without rendering, as the lesson stands now:</Typography>
      <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: 'wrap' }}>
        {(
          [
            ['captions.vtt', 'Captions (WebVTT)'],
            ['captions.srt', 'Captions (SubRip)'],
            ['chapters.txt', 'Chapters'],
            ['cut.otio', 'Cut for another program (OpenTimelineIO)'],
            ['cut.edl', 'Edit list (CMX 3600)'],
          ] as const
        ).map(([file, label]) => (
          <Button key={file} href={urlOf(routes.cutFile, { lessonId, file })}>
            {label}
          </Button>
        ))}
      </Stack>
      <Typography>
        To go on in another program: the cut, captions and all it is made of in one archive.
      </Typography>
      <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: 'wrap' }}>
        <Button href={urlOf(routes.handOver, { lessonId, footage: 'takes' })}>
          Cut with its takes (zip)
        </Button>
        <Button href={urlOf(routes.handOver, { lessonId, footage: 'originals' })}>
          Cut with the originals (zip)
        </Button>
      </Stack>
    </Stack>
  );
}

interface OrderProps {
  lesson: Lesson;
  order: ExportOrder;
}

/** What an export of the lesson as it stands will lack. */
function ExportWarnings({ lesson, order, ready }: OrderProps & { ready: ReadonlySet<string> }) {
  const asCards = blocksOf(lesson).filter(
    (block) => !block.footage || !ready.has(block.footage.takeId),
  );
  const fixed =
    order.hand === 'other hand'
      ? blocksOf(lesson).filter((block) =>
          [block.script, ...allCues(block).map(({ text }) => text)].some(
            (text) => fixedSides(text).length > 0,
          ),
        )
      : [];
  const { music } = lesson.finish.sound;
  const isMusicReady = useMaterials().some(
    (take) => take.id === music?.takeId && take.state === 'ready',
  );
  return (
    <>
      {asCards.length > 0 && (
        <Alert severity="info">
          Shown as a card, because there is no finished take:{' '}
          {asCards.map((block) => block.title || 'Untitled').join(', ')}.
        </Alert>
      )}
      {fixed.length > 0 && (
        <Alert severity="warning">
          The words fix a side of the body, which will be wrong for the other hand:{' '}
          {fixed.map((block) => block.title || 'Untitled').join(', ')}. The Script bench shows
          where, and wordings for either hand.
        </Alert>
      )}
      {music && !isMusicReady && (
        <Alert severity="warning">
          The music is not ready, so it will be missing. Look at Sound of the lesson on the Assemble
          bench.
        </Alert>
      )}
    </>
  );
}

/** What is to be exported, and as what. */
function OrderFields({
  lesson,
  order,
  onOrder,
}: OrderProps & { onOrder: (order: ExportOrder) => void }) {
  return (
    <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.5, alignItems: 'center' }}>
      <ChoiceField
        label="Picture"
        value={order.size}
        choices={exportSizes.map((one) => [one, sizeNames[one]] as const)}
        onChange={(next) => onOrder({ ...order, size: next })}
      />
      <ChoiceField
        label="Kind of file"
        value={order.format}
        choices={exportFormats.map((one) => [one, formatNames[one]] as const)}
        onChange={(format) => onOrder({ ...order, format })}
        sx={{ width: 240 }}
      />
      <ChoiceField
        label="Shape"
        value={order.shape}
        choices={exportShapes.map((one) => [one, shapeNames[one]] as const)}
        onChange={(shape) => onOrder({ ...order, shape })}
        sx={{ width: 240 }}
      />
      <ChoiceField
        label="What"
        value={order.blockId ?? ALL}
        choices={[
          [ALL, 'the whole lesson'],
          ...blocksOf(lesson).map(
            ({ id: blockId, title }) => [blockId, `only: ${title || 'Untitled'}`] as const,
          ),
        ]}
        onChange={(blockId) => onOrder({ ...order, blockId: blockId === ALL ? null : blockId })}
        sx={{ width: 260 }}
      />
      {lesson.second && (
        <ChoiceField
          label="Language"
          value={order.language}
          choices={[
            ['first', lesson.settings.language],
            ['second', lesson.second.language],
          ]}
          onChange={(language) => onOrder({ ...order, language })}
          sx={{ width: 140 }}
        />
      )}
      <ChoiceField
        label="Hand"
        value={order.hand}
        choices={exportHands.map((one) => [one, handNames[one]] as const)}
        onChange={(hand) => onOrder({ ...order, hand })}
        sx={{ width: 270 }}
      />
      <FormControlLabel
        label="clocks, counts and cues on the picture"
        control={
          <Switch
            checked={order.overlays}
            onChange={(_event, overlays) => onOrder({ ...order, overlays })}
          />
        }
      />
      <FormControlLabel
        label="captions on the picture, for players that show none"
        control={
          <Switch
            checked={order.captions}
            onChange={(_event, captions) => onOrder({ ...order, captions })}
          />
        }
      />
    </Stack>
  );
}

export function ExportPanel() {
  const { id, revision, lesson } = useOpenLesson();
  const takes = useTakes();
  const exports = api.useExportsQuery(id);
  const { refetch } = exports;
  // What was changed since an export is told anew with every change.
  useEffect(() => void refetch(), [refetch, revision]);
  const [start, starting] = api.useStartExportMutation();
  const [order, setOrder] = useState<ExportOrder>(USUAL);
  const dispatch = useAppDispatch();
  const [unsaved, setUnsaved] = useState<string | null>(null);
  const problem = unsaved ?? problemText(exports.error ?? starting.error);
  const ready = new Set(takes.filter((take) => take.state === 'ready').map((take) => take.id));
  const enlarged = enlargedWords(
    order,
    takes.filter(
      ({ id: takeId, state }) =>
        state === 'ready' && blocksOf(lesson).some(({ footage }) => footage?.takeId === takeId),
    ),
  );
  const begin = async () => {
    const unsaved = await dispatch(saveFirst());
    setUnsaved(unsaved);
    if (unsaved === null) await start({ lessonId: id, order });
  };
  return (
    <Stack spacing={2}>
      <Typography variant="h2">Files to take away</Typography>
      <Typography color="text.secondary">
        One video with clocks, counts and cues burned in (30 frames a second, voice at{' '}
        {String(lesson.finish.sound.lufs).replace('-', '−')} LUFS, chapters in the file), its
        captions, its sound and a poster.
      </Typography>
      <ExportWarnings lesson={lesson} order={order} ready={ready} />
      {problem && <Alert severity="error">{problem}</Alert>}
      <OrderFields lesson={lesson} order={order} onOrder={setOrder} />
      {enlarged && <Alert severity="info">{enlarged}</Alert>}
      <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: 'wrap' }}>
        <Button variant="contained" disabled={starting.isLoading} onClick={() => void begin()}>
          Export the video
        </Button>
      </Stack>
      <CutFiles lessonId={id} />
      {exports.data?.map((job) => (
        <ExportRow key={job.id} job={job} revision={revision} />
      ))}
    </Stack>
  );
}
