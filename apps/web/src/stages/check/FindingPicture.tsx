import { createNextState as produce } from '@reduxjs/toolkit';
import { Box, Button, Typography } from '@mui/material';
import PlayIcon from '@mui/icons-material/PlayArrow';
import StopIcon from '@mui/icons-material/Stop';
import type { Assembly } from '@zest/core/assembly';
import { whereSeen, type Finding } from '@zest/core/checks';
import { blocksOf, type Lesson } from '@zest/core/lesson';
import { clockText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { takeUrl } from '../../app/take-url.ts';
import { useAssembly } from '../../app/use-lesson.ts';
import type { LessonPlayer } from '../../player/player.ts';
import { Stage } from '../../player/Stage.tsx';
import { Moment, showsFootage } from '../../stage/Moment.tsx';

interface PictureProps {
  lesson: Lesson;
  cut: Assembly;
  finding: Finding;
}

/** A finding is met so long before it. */
const LEAD_MS = 1_500;

function Titled({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box component="figure" sx={{ m: 0, minWidth: 0 }}>
      <Typography component="figcaption" sx={{ fontWeight: 650, mb: 0.5 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}

/** Where a finding is seen once it is put right: in what was put in, or where it was. */
function placeAfter(finding: Finding, before: Assembly, lesson: Lesson, after: Assembly) {
  const old = new Set(before.blocks.map(({ blockId }) => blockId));
  const isNew = blocksOf(lesson).find(({ id }) => !old.has(id));
  if (isNew) return whereSeen({ blockId: isNew.id, atMs: null, seenAt: [] }, after);
  const from = before.blocks.find(({ blockId }) => blockId === finding.blockId);
  const to = after.blocks.find(({ blockId }) => blockId === finding.blockId);
  const { atMs } = finding;
  const moved =
    atMs === null || !from || !to
      ? null
      : Math.min(Math.max(to.startMs, atMs + to.startMs - from.startMs), to.endMs - 1);
  return whereSeen({ ...finding, atMs: moved }, after);
}

/** As it is, and as it would be once it is put right. */
function BeforeAndAfter({
  lesson,
  cut,
  finding,
  remedy,
}: PictureProps & { remedy: NonNullable<Finding['remedy']> }) {
  const better = useMemo(() => produce(lesson, remedy.change), [lesson, remedy]);
  const after = useAssembly(better);
  const [here, there] = [whereSeen(finding, cut), placeAfter(finding, cut, better, after)];
  const [now, then] = [teacherText('checking.now'), teacherText('checking.put-right')];
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, gap: 1.5 }}>
      <Titled title={now}>
        <Moment {...{ lesson, cut, ...here }} label={now} />
      </Titled>
      <Titled title={then}>
        <Moment lesson={better} cut={after} atMs={there.atMs} boxes={[]} label={then} />
      </Titled>
    </Box>
  );
}

const nothing = () => undefined;

/** The video from shortly before a moment on. */
function Played({ cut, fromMs, onEnd }: { cut: Assembly; fromMs: number; onEnd: () => void }) {
  const player = useRef<LessonPlayer>(null);
  useEffect(() => {
    player.current?.seek(fromMs);
    player.current?.play();
  }, [fromMs]);
  return (
    <Stage
      assembly={cut}
      takeUrl={takeUrl}
      playerRef={player}
      onScene={nothing}
      onPlaying={(isPlaying) => !isPlaying && player.current?.positionMs !== fromMs && onEnd()}
      onFault={onEnd}
      caption={null}
      label={teacherText('checking.played')}
      waits={teacherText('checking.waits')}
    />
  );
}

/** The one picture of a finding only the teacher can settle; what is filmed can be played. */
function One({ lesson, cut, finding }: PictureProps) {
  const [isPlayed, setPlayed] = useState(false);
  const here = whereSeen(finding, cut);
  const isFilmed = showsFootage(cut, here.atMs);
  const label = teacherText('checking.at', { moment: clockText(here.atMs) });
  return (
    <Box>
      {isPlayed ? (
        <Played
          cut={cut}
          fromMs={Math.max(0, here.atMs - LEAD_MS)}
          onEnd={() => setPlayed(false)}
        />
      ) : (
        <Moment {...{ lesson, cut, ...here, label }} />
      )}
      {isFilmed && (
        <Button
          startIcon={isPlayed ? <StopIcon /> : <PlayIcon />}
          onClick={() => setPlayed(!isPlayed)}
          sx={{ mt: 0.5 }}
        >
          {isPlayed ? teacherText('rehearse.stop') : label}
        </Button>
      )}
    </Box>
  );
}

/**
 * A finding at its moment, outlined; where a click puts it right, as it would be then beside it.
 */
export function FindingPicture(props: PictureProps) {
  const { lesson, cut, finding } = props;
  const { remedy } = finding;
  if (cut.durationMs === 0) return null;
  return remedy ? <BeforeAndAfter {...{ lesson, cut, finding, remedy }} /> : <One {...props} />;
}
