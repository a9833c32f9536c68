import { Alert, Button, Chip, Collapse, LinearProgress, Stack, Typography } from '@mui/material';
import { routes, urlOf, type ExportOrder, type Job } from '@zest/contract';
import { blocksOf } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useEffect, useState } from 'react';
import { api, problemText } from '../../../app/api.ts';
import { saveFirst } from '../../../app/autosave.ts';
import { useAppDispatch } from '../../../app/store.ts';
import { useOpenLesson, useTakes } from '../../../app/use-lesson.ts';
import { momentText } from '../../../ui/dates.ts';
import { FileGroup, FileRow } from './FileList.tsx';
import { ExportWarnings, OrderFields } from './OrderFields.tsx';
import {
  enlargedWords,
  formatSign,
  megabytes,
  orderWords,
  outOfDate,
  USUAL,
} from './order-words.ts';

/** How far an export is, and what can be done with it meanwhile. */
function Underway({ job }: { job: Job }) {
  const [cancel] = api.useCancelJobMutation();
  const [change] = api.useChangeJobMutation();
  const isHeld = job.state === 'held';
  const part = Math.round(job.progress * 100);
  return (
    <Stack spacing={1} sx={{ pb: 1.5 }}>
      <LinearProgress
        aria-label={teacherText('files.progress')}
        variant="determinate"
        value={part}
        sx={{ height: 10, borderRadius: 5 }}
      />
      <Stack direction="row" useFlexGap sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography sx={{ flex: 1, minWidth: 240 }}>
          {isHeld
            ? teacherText('files.held', { part })
            : teacherText('files.making', { part, doing: job.message.toLowerCase() })}
          {job.state === 'running' && job.leftMs !== null && (
            <>
              {' · '}
              <strong>{teacherText('files.left', { leftMs: roundedUp(job.leftMs) })}</strong>
            </>
          )}
          {'. '}
          {teacherText('files.leave')}
        </Typography>
        <Button variant="outlined" onClick={() => void change({ jobId: job.id, held: !isHeld })}>
          {teacherText(isHeld ? 'files.resume' : 'files.pause')}
        </Button>
        {job.state === 'queued' && (
          <Button variant="outlined" onClick={() => void change({ jobId: job.id, first: true })}>
            {teacherText('files.next')}
          </Button>
        )}
        <Button color="error" onClick={() => void cancel(job.id)}>
          {teacherText('files.cancel')}
        </Button>
      </Stack>
    </Stack>
  );
}

/** No time left is told more exactly than it is known: five seconds, then minutes. */
const roundedUp = (ms: number): number => {
  const step = ms < 60_000 ? 5_000 : 60_000;
  return Math.max(step, Math.ceil(ms / step) * step);
};

/** What came out, as it was read back from the file. */
const measured = ({
  durationMs,
  frames,
  bytes,
  loudnessLufs,
  truePeakDb,
}: NonNullable<Job['result']>) =>
  [
    teacherText('files.measured', { lengthMs: durationMs, frames, size: megabytes(bytes) }),
    loudnessLufs === null
      ? teacherText('files.silent')
      : teacherText('files.loudness', { lufs: loudnessLufs, peak: truePeakDb ?? '–' }),
    teacherText('files.checked'),
  ].join(', ');

function ExportRow({ job, revision }: { job: Job; revision: number }) {
  const { result } = job;
  const order = job.order ?? USUAL;
  const isOpen = job.state === 'running' || job.state === 'queued' || job.state === 'held';
  const isOld = result && result.revision < revision && job.changedSince?.length !== 0;
  const sign = formatSign(order.format);
  const get = (name: string, href: string) => (
    <Button variant="outlined" href={href}>
      {name}
    </Button>
  );
  return (
    <Stack data-testid="export">
      <FileRow
        sign={sign}
        name={`${teacherText('files.video')}, ${orderWords(order)}`}
        purpose={momentText(job.createdAt)}
        {...(result && { state: measured(result) })}
        {...(job.state === 'cancelled' && { state: teacherText('files.cancelled') })}
      >
        {isOld && <Chip size="small" color="warning" label={outOfDate(job.changedSince)} />}
        {result && (
          <>
            {get(
              `${teacherText('files.video')} (${sign})`,
              urlOf(routes.exportVideo, { jobId: job.id }),
            )}
            {get(
              teacherText('files.captions-vtt'),
              urlOf(routes.exportCaptions, { jobId: job.id }),
            )}
            {get(teacherText('files.sound'), urlOf(routes.exportSound, { jobId: job.id }))}
            {get(teacherText('files.poster'), urlOf(routes.exportPoster, { jobId: job.id }))}
          </>
        )}
      </FileRow>
      {isOpen && <Underway job={job} />}
      {job.state === 'failed' && <Alert severity="error">{job.message}</Alert>}
    </Stack>
  );
}

/** The finished video: what is to be made, how far it is, and what was made before. */
export function VideoFiles() {
  const { id, revision, lesson } = useOpenLesson();
  const takes = useTakes();
  const exports = api.useExportsQuery(id);
  const { refetch } = exports;
  // What was changed since an export is told anew with every change.
  useEffect(() => void refetch(), [refetch, revision]);
  const [start, starting] = api.useStartExportMutation();
  const [order, setOrder] = useState<ExportOrder>(USUAL);
  const [isOpen, setOpen] = useState(false);
  const dispatch = useAppDispatch();
  const [unsaved, setUnsaved] = useState<string | null>(null);
  const problem = unsaved ?? problemText(exports.error ?? starting.error);
  const ready = takes.filter(({ state }) => state === 'ready');
  const enlarged = enlargedWords(
    order,
    ready.filter(({ id: takeId }) =>
      blocksOf(lesson).some(({ footage }) => footage?.takeId === takeId),
    ),
  );
  const begin = async () => {
    const notYet = await dispatch(saveFirst());
    setUnsaved(notYet);
    if (notYet === null) await start({ lessonId: id, order });
  };
  const jobs = exports.data ?? [];
  return (
    <FileGroup name={teacherText('files.video')}>
      <FileRow
        sign={formatSign(order.format)}
        name={orderWords(order)}
        purpose={teacherText('files.video-for')}
        {...(jobs.length === 0 && { state: teacherText('files.none-made') })}
      >
        <Button variant="outlined" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          {teacherText('files.choices')}
        </Button>
        <Button variant="contained" disabled={starting.isLoading} onClick={() => void begin()}>
          {teacherText('files.make')}
        </Button>
      </FileRow>
      <Stack spacing={1} sx={{ pb: 1 }}>
        <Collapse in={isOpen} unmountOnExit>
          <OrderFields lesson={lesson} order={order} onOrder={setOrder} />
        </Collapse>
        <ExportWarnings
          lesson={lesson}
          order={order}
          ready={new Set(ready.map(({ id: takeId }) => takeId))}
        />
        {enlarged && <Alert severity="info">{enlarged}</Alert>}
        {problem && <Alert severity="error">{problem}</Alert>}
      </Stack>
      {jobs.map((job) => (
        <ExportRow key={job.id} job={job} revision={revision} />
      ))}
    </FileGroup>
  );
}
