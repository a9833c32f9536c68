import { Alert, Button, LinearProgress, Stack, Typography } from '@mui/material';
import type { Job } from '@zest/contract';
import { blocksOf } from '@zest/core/lesson';
import { clockText } from '@zest/core/time';
import { api, problemText } from '../../app/api.ts';
import { saveNow } from '../../app/autosave.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useOpenLesson, useTakes } from '../../app/use-lesson.ts';

const size = new Intl.NumberFormat(undefined, { maximumFractionDigits: 1 });
const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });

function timeLeft(ms: number | null): string {
  if (ms === null) return '';
  return ms < 60_000 ? `, about ${Math.max(5, Math.ceil(ms / 5_000) * 5)} s to go` : `, about ${Math.ceil(ms / 60_000)} min to go`;
}

function ExportRow({ job }: { job: Job }) {
  const [cancel] = api.useCancelJobMutation();
  const running = job.state === 'running' || job.state === 'queued';
  const { result } = job;
  return (
    <Stack spacing={1} sx={{ borderTop: 1, borderColor: 'divider', pt: 1.5 }} data-testid="export">
      <Typography sx={{ fontWeight: 650 }}>{when.format(new Date(job.createdAt))}</Typography>
      {running && (
        <>
          <LinearProgress aria-label="Progress of the export" variant="determinate" value={job.progress * 100} />
          <Typography>
            {Math.round(job.progress * 100)} %, {job.message.toLowerCase()}
            {timeLeft(job.leftMs)}. You may close this page meanwhile.
          </Typography>
          <Button color="error" sx={{ alignSelf: 'start' }} onClick={() => void cancel(job.id)}>
            Cancel
          </Button>
        </>
      )}
      {job.state === 'failed' && <Alert severity="error">{job.message}</Alert>}
      {job.state === 'cancelled' && <Typography color="text.secondary">Cancelled. What was rendered is kept for the next export.</Typography>}
      {result && (
        <>
          <Typography color="text.secondary">
            Verified: {clockText(result.durationMs)}, {result.frames} frames, {size.format(result.bytes / 1e6)} MB
            {result.loudnessLufs !== null && `, ${result.loudnessLufs} LUFS, true peak ${result.truePeakDb} dBTP`}
            {result.loudnessLufs === null && ', no sound'}
          </Typography>
          <Stack direction="row" spacing={1}>
            <Button variant="outlined" href={`/api/jobs/${job.id}/video`}>
              Video (MP4)
            </Button>
            <Button variant="outlined" href={`/api/jobs/${job.id}/captions`}>
              Captions (WebVTT)
            </Button>
          </Stack>
        </>
      )}
    </Stack>
  );
}

export function ExportPanel() {
  const { id, lesson } = useOpenLesson();
  const takes = useTakes();
  const exports = api.useExportsQuery(id);
  const [start, starting] = api.useStartExportMutation();
  const dispatch = useAppDispatch();
  const problem = problemText(exports.error ?? starting.error);
  const ready = new Set(takes.filter((take) => take.state === 'ready').map((take) => take.id));
  const asCards = blocksOf(lesson).filter((block) => !block.footage || !ready.has(block.footage.takeId));
  const order = async () => {
    await dispatch(saveNow());
    await start(id);
  };
  return (
    <Stack spacing={2}>
      <Typography variant="h2">Files to take away</Typography>
      <Typography color="text.secondary">
        One video with clocks, counts and cues burned in (1280 × 720, 30 frames a second, voice at −16 LUFS), and its captions.
      </Typography>
      {asCards.length > 0 && (
        <Alert severity="info">
          Shown as a card, because there is no finished take: {asCards.map((block) => block.title || 'Untitled').join(', ')}.
        </Alert>
      )}
      {problem && <Alert severity="error">{problem}</Alert>}
      <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: 'wrap' }}>
        <Button variant="contained" disabled={starting.isLoading} onClick={() => void order()}>
          Export the video
        </Button>
      </Stack>
      {exports.data?.map((job) => (
        <ExportRow key={job.id} job={job} />
      ))}
    </Stack>
  );
}
