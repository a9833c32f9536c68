import { Box } from '@mui/material';
import type { Framing } from '@zest/core/framing';
import type { Assembly } from '@zest/core/assembly';
import type { Lesson } from '@zest/core/lesson';
import type { FrameHint } from '@zest/core/signal';
import { teacherText } from '@zest/core/words';
import { useEffect, useRef, useState } from 'react';
import type { OpenCamera } from '../../../record/cameras.ts';
import { BlockOverlay } from '../../../stage/BlockOverlay.tsx';
import { FramingGuide } from './FramingGuide.tsx';
import { HintSign } from './HintSign.tsx';
import { useLiveWatch } from './use-live-watch.ts';

/** Frames a second of what the teacher sees of the camera. */
const SHOWN_FPS = 15;

/**
 * A copy of a track at the pace it is shown. Where a browser slows the camera itself down with it,
 * both keep their pace.
 */
function slowed(track: MediaStreamTrack): MediaStreamTrack {
  const copy = track.clone();
  const { frameRate } = track.getSettings();
  const slow = async () => {
    await copy.applyConstraints({ frameRate: SHOWN_FPS });
    if (frameRate !== undefined && (track.getSettings().frameRate ?? frameRate) < frameRate)
      await copy.applyConstraints({ frameRate });
  };
  void slow().catch(() => undefined);
  return copy;
}

interface PictureProps {
  stream: MediaStream | null;
  mirrored: boolean;
  label: string;
  onVideo?: (video: HTMLVideoElement | null) => void;
}

function Picture({ stream, mirrored, label, onVideo }: PictureProps) {
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    const element = video.current;
    if (!element) return;
    // Shown at half the pace: drawing it must not cost the recording its frames.
    const tracks = stream?.getVideoTracks().map(slowed) ?? [];
    element.srcObject = stream && new MediaStream(tracks);
    onVideo?.(stream ? element : null);
    return () => {
      for (const track of tracks) track.stop();
      onVideo?.(null);
    };
  }, [stream, onVideo]);
  // People know themselves from mirrors; the recording is not mirrored.
  return (
    <video
      ref={video}
      autoPlay
      muted
      playsInline
      aria-label={label}
      style={{
        visibility: 'visible',
        width: '100%',
        height: '100%',
        objectFit: 'contain',
        transform: mirrored ? 'scaleX(-1)' : 'none',
      }}
    />
  );
}

/** Recording comes first: the overlays need not be smooth to be read from afar. */
const OVERLAY_EVERY_MS = 100;

interface CameraPictureProps {
  camera: OpenCamera | null;
  more: readonly OpenCamera[];
  mirrored: boolean;
  watches: boolean;
  filming: Lesson['filming'];
  /** The block that is filmed, alone. */
  cut: Assembly;
  framing: Framing;
  momentMs: () => number | null;
  /** Told when nobody is in the picture any more, or stands wrong. */
  onHint?: (hint: FrameHint) => void;
}

/** The first camera large, with overlays and framing guide; further ones small in its corner. */
export function CameraPicture({
  camera,
  more,
  mirrored,
  watches,
  filming,
  cut,
  framing,
  momentMs,
  onHint,
}: CameraPictureProps) {
  const [video, setVideo] = useState<HTMLVideoElement | null>(null);
  const watched = useLiveWatch(watches ? video : null, framing.room, filming);
  const { hint } = watched;
  useEffect(() => {
    if (hint) onHint?.(hint);
  }, [hint, onHint]);
  const isUpright = filming.orientation === 'portrait';
  const picture = (
    <Box
      sx={{
        position: 'relative',
        minHeight: 0,
        flex: '0 1 auto',
        aspectRatio: isUpright ? '9 / 16' : '16 / 9',
        maxHeight: '100%',
        maxWidth: '100%',
        alignSelf: 'center',
        width: isUpright ? 'auto' : '100%',
        bgcolor: '#26211c',
        containerType: 'inline-size',
        overflow: 'hidden',
      }}
    >
      <Box sx={{ position: 'absolute', inset: 0 }}>
        <Picture
          stream={camera?.stream ?? null}
          mirrored={mirrored}
          label={teacherText('filming.camera-picture')}
          onVideo={setVideo}
        />
      </Box>
      <FramingGuide framing={framing} filming={filming} mirrored={mirrored} />
      {/* Over the guide: its lines never run through words. */}
      <Box
        className={isUpright ? undefined : 'stage-over'}
        sx={{
          position: 'absolute',
          inset: 0,
          '& canvas': { width: '100%', height: '100%', display: 'block' },
        }}
      >
        {!isUpright && <BlockOverlay cut={cut} momentMs={momentMs} everyMs={OVERLAY_EVERY_MS} />}
      </Box>
      {more.map(({ id, stream }, i) => (
        <Box
          key={id}
          sx={{
            position: 'absolute',
            right: 8,
            bottom: 8 + i * 110,
            width: 170,
            height: 100,
            border: 2,
            borderColor: '#fff6ea',
            bgcolor: '#000',
          }}
        >
          <Picture
            stream={stream}
            mirrored={mirrored}
            label={teacherText('filming.picture-camera', { n: i + 2 })}
          />
        </Box>
      ))}
    </Box>
  );
  return (
    <>
      {picture}
      <HintSign watched={watched} mirrored={mirrored} />
    </>
  );
}
