import { Alert, Box, Button, MenuItem, Stack, TextField, Typography } from '@mui/material';
import type { Block } from '@zest/core/lesson';
import { timeBlock } from '@zest/core/schedule';
import { clockText } from '@zest/core/time';
import { useEffect, useRef, useState } from 'react';
import { api, problemText } from '../../app/api.ts';
import { messageOf } from '../../app/message.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useOpenLesson, useTakes } from '../../app/use-lesson.ts';
import '../../player/stage.css';
import { openPracticeCamera, type PracticeCamera } from '../../record/practice-camera.ts';
import { record, type Recording } from '../../record/recorder.ts';
import { uploadFault } from '../../record/upload.ts';
import { BlockOverlay } from './BlockOverlay.tsx';
import { chooseTake } from './uploads.ts';

/** Footage before the block's first moment: time to get into place. */
const HEAD_MS = 3_000;
/** Footage after the block's last moment, to have something to trim. */
const TAIL_MS = 1_000;
const PRACTICE = 'practice';

async function cameras(): Promise<MediaDeviceInfo[]> {
  const devices = (await navigator.mediaDevices?.enumerateDevices()) ?? [];
  return devices.filter((device) => device.kind === 'videoinput');
}

type Phase = { kind: 'ready' } | { kind: 'recording'; startedAt: number } | { kind: 'saving' };

/** Records the block from a camera or from the practice camera, with its clock in view. */
export function RecordPanel({ block, onDone }: { block: Block; onDone: () => void }) {
  const { id: lessonId, lesson } = useOpenLesson();
  const takes = useTakes().filter((take) => take.blockId === block.id).length;
  const [devices, setDevices] = useState<MediaDeviceInfo[]>([]);
  const [camera, setCamera] = useState<string | null>(null);
  const [isOpen, setOpen] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const [phase, setPhase] = useState<Phase>({ kind: 'ready' });
  const [nowMs, setNowMs] = useState(0);
  const [makeTake] = api.useMakeTakeMutation();
  const dispatch = useAppDispatch();
  const video = useRef<HTMLVideoElement>(null);
  const source = useRef<{ stream: MediaStream; practice: PracticeCamera | null } | null>(null);
  const recording = useRef<Recording | null>(null);
  const [opening] = useState({ block, lesson });
  const times = timeBlock(block, lesson);
  const blockMs = times.spans.findLast((span) => span.kind !== 'pause-sign')?.endMs ?? 0;

  useEffect(() => {
    void cameras().then((found) => {
      setDevices(found);
      setCamera(found[0]?.deviceId ?? PRACTICE);
    });
  }, []);

  useEffect(() => {
    if (camera === null) return;
    let left = false;
    const open = async () => {
      if (camera === PRACTICE) {
        const practice = await openPracticeCamera(opening.block, opening.lesson);
        return { stream: practice.stream, practice };
      }
      const stream = await navigator.mediaDevices.getUserMedia({
        video: { ...(camera && { deviceId: { exact: camera } }), width: { ideal: 1280 }, height: { ideal: 720 } },
        audio: { echoCancellation: false, noiseSuppression: false },
      });
      return { stream, practice: null };
    };
    const close = (opened: NonNullable<typeof source.current>) => {
      opened.practice?.stop();
      for (const track of opened.stream.getTracks()) track.stop();
    };
    open()
      .then((opened) => {
        if (left) return close(opened);
        source.current = opened;
        setOpen(true);
        setFault(null);
        if (video.current) video.current.srcObject = opened.stream;
      })
      .catch((error: unknown) => {
        if (!left) setFault(`The camera did not open (${messageOf(error)}). Allow it in the browser, close other programs that use it, or choose the practice camera.`);
      });
    return () => {
      left = true;
      setOpen(false);
      if (source.current) close(source.current);
      source.current = null;
    };
  }, [camera, opening]);

  const stop = async () => {
    const running = recording.current;
    if (!running) return;
    recording.current = null;
    setPhase({ kind: 'saving' });
    try {
      await running.stop();
      onDone();
    } catch (error) {
      setFault(`The recording is kept in this browser, but the server does not have all of it. ${uploadFault(error)}`);
      setPhase({ kind: 'ready' });
    }
  };

  const start = async () => {
    const { current } = source;
    if (!current) return;
    setFault(null);
    const made = await makeTake({
      lessonId,
      blockId: block.id,
      name: `Take ${takes + 1}`,
      source: current.practice ? 'practice' : 'camera',
    });
    if (!made.data) {
      setFault(problemText(made.error));
      return;
    }
    try {
      recording.current = await record(current.stream, { takeId: made.data.id, lessonId, blockId: block.id }, setFault);
    } catch (error) {
      setFault(messageOf(error));
      return;
    }
    current.practice?.perform(HEAD_MS);
    dispatch(chooseTake(block, made.data.id, HEAD_MS));
    setNowMs(0);
    setPhase({ kind: 'recording', startedAt: performance.now() });
  };

  const latestStop = useRef(stop);
  useEffect(() => {
    latestStop.current = stop;
  });
  useEffect(() => {
    if (phase.kind !== 'recording') return;
    const timer = setInterval(() => {
      const sinceMs = performance.now() - phase.startedAt;
      setNowMs(sinceMs);
      // A talk ends when the teacher says so; timed blocks end by themselves.
      if (block.kind !== 'talk' && sinceMs >= HEAD_MS + blockMs + TAIL_MS) void latestStop.current();
    }, 100);
    return () => clearInterval(timer);
  }, [phase, block.kind, blockMs]);
  useEffect(() => () => void latestStop.current(), []);

  const isPractice = camera === PRACTICE;
  const headLeft = Math.ceil((HEAD_MS - nowMs) / 1000);
  return (
    <Stack spacing={2}>
      {fault && <Alert severity="error">{fault}</Alert>}
      <Box sx={{ position: 'relative', width: '100%', maxWidth: 'calc((100vh - 330px) * 16 / 9)', minWidth: { md: 560 }, alignSelf: 'center' }}>
        <div className="stage">
          <video
            ref={video}
            autoPlay
            muted
            playsInline
            aria-label="Camera picture"
            // People know themselves from mirrors; the recording is not mirrored.
            style={{ visibility: 'visible', transform: isPractice ? 'none' : 'scaleX(-1)' }}
          />
          <BlockOverlay lesson={lesson} block={block} momentMs={() => (phase.kind === 'recording' ? performance.now() - phase.startedAt - HEAD_MS : null)} />
        </div>
        {phase.kind === 'recording' && headLeft > 0 && (
          <Typography
            sx={{ position: 'absolute', inset: 0, display: 'grid', placeItems: 'center', fontSize: '22vw', fontWeight: 800, color: '#fff', textShadow: '0 0 30px #000' }}
            aria-live="assertive"
          >
            {headLeft}
          </Typography>
        )}
      </Box>
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2, alignItems: 'center', justifyContent: 'center' }}>
        {phase.kind === 'recording' ? (
          <Button variant="contained" color="error" size="large" onClick={() => void stop()} sx={{ fontSize: '1.4rem', px: 4 }}>
            Stop
          </Button>
        ) : (
          <Button variant="contained" size="large" disabled={phase.kind === 'saving' || !isOpen} onClick={() => void start()} sx={{ fontSize: '1.4rem', px: 4 }}>
            {phase.kind === 'saving' ? 'Saving …' : 'Start recording'}
          </Button>
        )}
        <TextField
          select
          label="Camera"
          value={camera ?? ''}
          disabled={phase.kind !== 'ready'}
          onChange={(event) => setCamera(event.target.value)}
          sx={{ width: 260 }}
        >
          {devices.map((device, i) => (
            <MenuItem key={device.deviceId || i} value={device.deviceId}>
              {device.label || `Camera ${i + 1}`}
            </MenuItem>
          ))}
          <MenuItem value={PRACTICE}>Practice camera (drawn performer)</MenuItem>
        </TextField>
        <Typography sx={{ fontSize: '1.4rem', fontVariantNumeric: 'tabular-nums' }} data-testid="recorded">
          {phase.kind === 'recording' ? clockText(nowMs) : `${clockText(blockMs)} to film`}
        </Typography>
        {devices.length === 0 && camera === PRACTICE && (
          <Typography color="text.secondary">No camera was found, so the practice camera stands in.</Typography>
        )}
      </Stack>
    </Stack>
  );
}
