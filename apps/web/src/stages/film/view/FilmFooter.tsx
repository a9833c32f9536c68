import { Box, Button, Stack, Typography } from '@mui/material';
import { teacherText } from '@zest/core/words';
import type { FilmPhase } from '../../../record/film-run.ts';
import { LevelMeter } from './LevelMeter.tsx';
import type { Readout } from './readout.ts';
import type { FilmAction } from './use-film-actions.ts';

export type Panel = 'none' | 'options' | 'remote';

const goWords: Record<FilmPhase, string> = {
  ready: teacherText('filming.start'),
  settling: teacherText('filming.getting-into-place'),
  'counting-in': teacherText('filming.counting'),
  filming: teacherText('filming.end-here'),
  paused: teacherText('filming.resume'),
  ending: teacherText('filming.marking-end'),
};

interface FilmFooterProps {
  phase: FilmPhase;
  readout: Readout;
  /** The block that comes next. */
  next: string;
  level: AnalyserNode;
  hasCamera: boolean;
  isFirst: boolean;
  isLast: boolean;
  panel: Panel;
  onPanel: (panel: Panel) => void;
  act: Record<FilmAction, () => void>;
}

/** What is read from three metres away, and the buttons. */
export function FilmFooter(props: FilmFooterProps) {
  const { phase, readout, next, level, hasCamera, act } = props;
  const isReady = phase === 'ready';
  const isBusy = phase === 'settling' || phase === 'counting-in' || phase === 'ending';
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: 'auto minmax(0, 1fr) auto',
        columnGap: 3,
        alignItems: 'center',
      }}
    >
      <LargeClock clock={readout.clock} isFilming={phase === 'filming'} />
      <Box sx={{ minWidth: 0 }}>
        <Typography noWrap sx={{ fontSize: '2.2rem' }}>
          {readout.label}
        </Typography>
        <Typography
          noWrap
          sx={{
            fontSize: '4.2rem',
            lineHeight: 1.05,
            fontWeight: 800,
            color: '#8fd6c9',
            minHeight: '1em',
          }}
          data-testid="film-count"
        >
          {readout.count}
        </Typography>
        <Typography noWrap sx={{ fontSize: '1.7rem', color: '#dccdb9' }}>
          {readout.next || next}
        </Typography>
      </Box>
      <Stack sx={{ gap: 1, alignItems: 'stretch', minWidth: 260 }}>
        <LevelMeter level={level} />
        <Button
          variant="contained"
          size="large"
          disabled={isBusy || (isReady && !hasCamera)}
          onClick={act.go}
          sx={{ fontSize: '1.6rem', py: 1 }}
        >
          {goWords[phase]}
        </Button>
        <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
          {isReady ? <ReadyButtons {...props} /> : <RunButtons phase={phase} act={act} />}
        </Stack>
      </Stack>
    </Box>
  );
}

function LargeClock({ clock, isFilming }: { clock: string; isFilming: boolean }) {
  return (
    <Typography
      sx={{
        fontSize: 'clamp(6rem, 15vw, 13rem)',
        lineHeight: 0.95,
        fontWeight: 800,
        fontVariantNumeric: 'tabular-nums',
        color: isFilming ? '#ffb454' : '#fff6ea',
        minWidth: '2.4ch',
      }}
      data-testid="film-clock"
    >
      {clock}
    </Typography>
  );
}

function ReadyButtons({ isFirst, isLast, panel, onPanel, act }: FilmFooterProps) {
  const opens = (which: Panel) => ({
    variant: 'outlined' as const,
    'aria-expanded': panel === which,
    onClick: () => onPanel(panel === which ? 'none' : which),
  });
  return (
    <>
      <Button variant="outlined" disabled={isFirst} onClick={act.back}>
        {teacherText('filming.back')}
      </Button>
      <Button variant="outlined" disabled={isLast} onClick={act.next}>
        {teacherText('filming.next')}
      </Button>
      <Button {...opens('options')}>{teacherText('filming.settings')}</Button>
      <Button {...opens('remote')}>{teacherText('filming.second-device')}</Button>
    </>
  );
}

function RunButtons({ phase, act }: Pick<FilmFooterProps, 'phase' | 'act'>) {
  return (
    <>
      <Button variant="outlined" onClick={act.again}>
        {teacherText('filming.again-r')}
      </Button>
      <Button variant="outlined" onClick={act.back}>
        {teacherText('filming.stop-take')}
      </Button>
      {(phase === 'filming' || phase === 'paused') && (
        <Button variant="outlined" onClick={act.pause}>
          {phase === 'paused' ? teacherText('filming.resume-p') : teacherText('filming.pause-p')}
        </Button>
      )}
    </>
  );
}
