import { Box, ButtonBase, Paper, Stack, Typography } from '@mui/material';
import { LIMITS, type Block, type Side } from '@zest/core/lesson';
import { shortForm, speechMs } from '@zest/core/schedule';
import { saidIn } from '@zest/core/script';
import { lengthText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { memo, useState } from 'react';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useChosenBlock, useLessonPart, useOpenLesson, useSchedule } from '../../app/use-lesson.ts';
import { BlockStage } from '../../stage/BlockStage.tsx';
import { ChoiceField, WholeField } from '../../ui/fields.tsx';
import { KindMark } from '../../ui/pictograms.tsx';
import { Panes } from '../../frame/Panes.tsx';
import { useLatest } from '../../ui/use-latest.ts';
import { Counts } from './Counts.tsx';
import { Glossary } from './Glossary.tsx';
import { PaceMeter, ReadAloud } from './PaceMeter.tsx';
import { Prompter } from './Prompter.tsx';
import { FixedSides, Reading } from './Reading.tsx';
import { ScriptEditor } from './ScriptEditor.tsx';
import { SecondLanguage } from './SecondLanguage.tsx';
import { Shown } from './Shown.tsx';

interface RowProps {
  block: Block;
  /** How long it lasts on the video. */
  videoMs: number;
  isOpen: boolean;
  hand: Side;
  onOpen: (blockId: string) => void;
}

/**
 * One block: what is said beside what is shown. Only the open one is an editor, so that long
 * lessons stay quick.
 */
const Row = memo(function Row({ block, videoMs, isOpen, hand, onOpen }: RowProps) {
  return (
    <Box
      component="section"
      aria-label={teacherText('script.script', { title: block.title })}
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 3fr) minmax(0, 2fr)' },
        columnGap: 3,
        rowGap: 1,
        py: 1.5,
        px: 2,
        borderTop: 1,
        borderColor: 'divider',
        borderLeft: 4,
        borderLeftColor: isOpen ? 'primary.main' : 'transparent',
      }}
    >
      <Stack
        spacing={1}
        sx={{ minWidth: 0, alignSelf: 'start', position: { md: 'sticky' }, top: 8 }}
      >
        <Stack
          direction="row"
          useFlexGap
          sx={{ alignItems: 'center', columnGap: 1, flexWrap: 'wrap' }}
        >
          <KindMark kind={block.kind} />
          <ButtonBase
            onClick={() => onOpen(block.id)}
            aria-expanded={isOpen}
            sx={{
              ...{ justifyContent: 'start', textAlign: 'left' },
              ...{ minHeight: { xs: 44, md: 32 }, minWidth: { xs: 44, md: 0 } },
            }}
          >
            <Typography component="h3" variant="h3" dir="auto">
              {block.title || teacherText('untitled')}
            </Typography>
          </ButtonBase>
          <Typography color="text.secondary" sx={{ fontVariantNumeric: 'tabular-nums' }}>
            {/* How many words are said stands below them. */}
            {[block.kind === 'talk' ? '' : shortForm(block), lengthText(videoMs)]
              .filter((text) => text !== '')
              .join(' · ')}
          </Typography>
        </Stack>
        {isOpen ? (
          <ScriptEditor key={block.id} block={block} />
        ) : (
          <Reading block={block} hand={hand} />
        )}
        <PaceMeter block={block} />
        {isOpen && <FixedSides block={block} />}
      </Stack>
      <Shown block={block} isOpen={isOpen} />
    </Box>
  );
});

/** What is said beside what is shown, block by block. */
export function ScriptBench() {
  const { lesson } = useOpenLesson();
  const { block: chosen, choose } = useChosenBlock();
  const [hand, setHand] = useState<Side>('right');
  const open = useLatest(choose);
  const dispatch = useAppDispatch();
  const speechWpm = useLessonPart(({ settings }) => settings.speechWpm);
  const lengths = new Map(
    useSchedule().blocks.map(({ block, durationMs }) => [block.id, durationMs]),
  );
  const said = lesson.sections.flatMap(({ blocks }) => blocks.map(saidIn)).join(' ');
  if (!chosen) return <Typography>{teacherText('script.script-needs-blocks-add')}</Typography>;
  const tools = (
    <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2, alignItems: 'center' }}>
      <WholeField
        label={teacherText('script.words-minute')}
        value={speechWpm}
        range={LIMITS.speechWpm}
        onChange={(wpm) =>
          dispatch(
            edit(
              teacherText('script.words-minute'),
              (d) => void (d.settings.speechWpm = wpm),
              true,
            ),
          )
        }
      />
      <ReadAloud block={chosen} />
      <ChoiceField
        label={teacherText('script.read-for')}
        value={hand}
        choices={[
          ['right', teacherText('script.right-handed')],
          ['left', teacherText('script.left-handed')],
        ]}
        sx={{ width: 215 }}
        onChange={setHand}
      />
      <Prompter />
      <Glossary />
      <Counts />
      <SecondLanguage />
      <Typography color="text.secondary">
        {teacherText('script.all-said', { time: lengthText(speechMs(said, speechWpm)) })}
      </Typography>
    </Stack>
  );
  const text = (
    <Stack spacing={2}>
      {lesson.sections.map((section) => (
        <Paper key={section.id} variant="outlined">
          <Typography component="h2" variant="h2" sx={{ px: 2, py: 1.25 }}>
            {section.title}
          </Typography>
          {section.blocks.map((block) => (
            <Row
              key={block.id}
              block={block}
              videoMs={lengths.get(block.id) ?? 0}
              isOpen={block.id === chosen.id}
              hand={hand}
              onOpen={open}
            />
          ))}
        </Paper>
      ))}
    </Stack>
  );
  return (
    <Panes
      id="script"
      panes={[
        {
          ...{ id: 'text', name: teacherText('pane.text'), part: 68, leastPx: 520 },
          heading: tools,
          content: text,
        },
        {
          ...{ id: 'stage', name: teacherText('pane.stage'), part: 32, leastPx: 320 },
          content: <BlockStage />,
        },
      ]}
    />
  );
}
