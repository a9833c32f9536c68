import { Alert, Button, Stack, Tab, Tabs, Typography } from '@mui/material';
import { shotsOf } from '@zest/core/framing';
import { teacherText } from '@zest/core/words';
import { useEffect, useState } from 'react';
import { useChosenBlock, useOpenLesson } from '../../app/use-lesson.ts';
import { OnePane } from '../../frame/Panes.tsx';
import { recoverRecordings } from '../../record/recorder.ts';
import { uploadFault } from '../../record/upload.ts';
import { CallSheetView } from './CallSheetView.tsx';
import { ImportPanel } from './ImportPanel.tsx';
import { SetUp } from './setup/SetUp.tsx';
import { TakesOfBlock } from './TakesOfBlock.tsx';
import { useMarkedTakes } from './use-marked-takes.ts';
import { FilmView } from './view/FilmView.tsx';

type Way = 'set-up' | 'call-sheet' | 'takes' | 'import';
const ways: readonly (readonly [Way, string])[] = [
  ['set-up', teacherText('film.set-up')],
  ['call-sheet', teacherText('film.call-sheet')],
  ['takes', teacherText('film.takes')],
  ['import', teacherText('film.import')],
];

interface Filming {
  blockId: string;
  only: ReadonlySet<string> | undefined;
}

/** From where the camera goes to which take is the one. */
export function FilmBench() {
  const { id: lessonId } = useOpenLesson();
  const { block, choose } = useChosenBlock();
  const [way, setWay] = useState<Way>('takes');
  const [filming, setFilming] = useState<Filming | null>(null);
  const [news, setNews] = useState<{
    severity: 'info' | 'success' | 'warning';
    text: string;
  } | null>(null);
  useMarkedTakes();

  useEffect(() => {
    let left = false;
    const say = (next: typeof news) => !left && setNews(next);
    recoverRecordings(lessonId, () =>
      say({
        severity: 'info',
        text: teacherText('film.recording-closed-window-was'),
      }),
    )
      .then(
        (count) =>
          count > 0 &&
          say({ severity: 'success', text: teacherText('film.recording-closed-window-saved') }),
      )
      .catch((error: unknown) =>
        say({
          severity: 'warning',
          text: teacherText('film.recording-closed-window-kept', {
            uploadFault: uploadFault(error),
          }),
        }),
      );
    return () => {
      left = true;
    };
  }, [lessonId]);

  if (!block) return <Alert severity="info">{teacherText('film.there-nothing-film-yet')}</Alert>;
  const film = (blockId: string, only?: ReadonlySet<string>) => {
    choose(blockId);
    setFilming({ blockId, only });
  };
  const tools = (
    <Stack spacing={1}>
      {news && (
        <Alert severity={news.severity} onClose={() => setNews(null)}>
          {news.text}
        </Alert>
      )}
      <Stack
        direction="row"
        useFlexGap
        sx={{ columnGap: 3, alignItems: 'center', flexWrap: 'wrap' }}
      >
        <Typography variant="h2">{block.title || teacherText('untitled')}</Typography>
        <Tabs
          value={way}
          onChange={(_event, next: Way) => setWay(next)}
          aria-label={teacherText('film.filming')}
          sx={{ '& .MuiTab-root': { minWidth: 0, px: { xs: 1, sm: 2 } } }}
        >
          {ways.map(([id, name]) => (
            <Tab key={id} value={id} label={name} />
          ))}
        </Tabs>
        <Button
          variant="contained"
          size="large"
          disabled={shotsOf(block).length === 0}
          onClick={() => film(block.id)}
          sx={{ fontSize: '1.15rem' }}
        >
          {teacherText('film.film-block')}
        </Button>
      </Stack>
    </Stack>
  );
  return (
    <>
      <OnePane
        name={teacherText('bench.film')}
        heading={tools}
        content={
          <>
            {way === 'set-up' && <SetUp key={block.id} block={block} />}
            {way === 'call-sheet' && <CallSheetView onFilm={film} />}
            {way === 'takes' && <TakesOfBlock key={block.id} block={block} />}
            {way === 'import' && <ImportPanel />}
          </>
        }
      />
      {filming && (
        <FilmView
          startBlockId={filming.blockId}
          only={filming.only}
          onClose={() => {
            setFilming(null);
            setWay('takes');
          }}
        />
      )}
    </>
  );
}
