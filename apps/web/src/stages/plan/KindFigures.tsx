import { FormControlLabel, Stack, Switch, Typography } from '@mui/material';
import { figureOf, growths, LIMITS, type Block, type BlockOf } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { measureBlock, readerAge, speechMs, YOUNGEST_READER } from '@zest/core/schedule';
import { useOpenLesson } from '../../app/use-lesson.ts';
import { AimField, ChoiceField, TextLine } from '../../ui/fields.tsx';
import { Called } from './CalledFigures.tsx';
import { Choices } from './Choices.tsx';
import { Moves, OneExercise } from './ExerciseFields.tsx';
import { FigureFields } from './FigureFields.tsx';
import { IntervalsFigures } from './IntervalsFigures.tsx';
import { FirstSide, Line } from './layout.tsx';
import { CardLines, ScoreTargets } from './lists.tsx';
import { Combination } from './Combination.tsx';
import { TaughtInParts } from './TaughtInParts.tsx';
import { setOrLeave } from '../../ui/set-or-leave.ts';
import { useChange } from '../../ui/use-change.ts';

function Sides({ block }: { block: BlockOf<'reps' | 'hold'> }) {
  const change = useChange(block);
  return (
    <>
      <ChoiceField
        label="Sides"
        value={block.sides}
        choices={[
          ['both', 'both together'],
          ['each', 'one side, then the other'],
          ['alternating', 'alternating'],
        ]}
        sx={{ width: 230 }}
        onChange={(sides) => change('Sides', (d) => void (d.sides = sides))}
      />
      {block.sides !== 'both' && <FirstSide block={block} />}
    </>
  );
}

type SpokenKey<B> = { [K in keyof B]: B[K] extends number | null ? K : never }[keyof B] & string;

/** A length that follows the words (or the reading) until it is fixed. */
function Spoken<B extends Block>({
  block,
  figure,
  label,
  spokenMs,
}: {
  block: B;
  figure: SpokenKey<B>;
  label: string;
  spokenMs: number;
}) {
  const change = useChange(block);
  const isSpoken = block[figure] === null;
  const fixedMs = Math.min(LIMITS.fixedMs.max, Math.max(LIMITS.fixedMs.min, spokenMs));
  return (
    <>
      <FormControlLabel
        label={label}
        control={
          <Switch
            checked={isSpoken}
            onChange={(_event, spoken) =>
              change(
                'Length',
                (d) => Object.assign(d, { [figure]: spoken ? null : fixedMs }),
                false,
              )
            }
          />
        }
      />
      <FigureFields block={block} keys={[figure]} />
    </>
  );
}

/** Whether rests last as planned, or until the student is ready. */
function RestsEnd({ block }: { block: BlockOf<'reps' | 'routine'> }) {
  const change = useChange(block);
  return (
    <ChoiceField
      label={teacherText('rests.by')}
      value={block.restBy ?? 'time'}
      choices={(['time', 'ready'] as const).map(
        (by) => [by, teacherText(`rests.by-${by}`)] as const,
      )}
      sx={{ width: 220 }}
      onChange={(by) =>
        change('Rests', (d) => setOrLeave(d, 'restBy', by === 'time' ? undefined : by), false)
      }
    />
  );
}

function Reps({ block }: { block: BlockOf<'reps'> }) {
  return (
    <Stack spacing={2}>
      <Line>
        <OneExercise block={block} />
        <Sides block={block} />
      </Line>
      <Line>
        <FigureFields block={block} />
        {block.sets > 1 && <RestsEnd block={block} />}
      </Line>
      <TaughtInParts block={block} />
    </Stack>
  );
}

function Hold({ block }: { block: BlockOf<'hold'> }) {
  const change = useChange(block);
  return (
    <Stack spacing={2}>
      <Line>
        <OneExercise block={block} />
        <Sides block={block} />
      </Line>
      <Line>
        <ChoiceField
          label="Held for"
          value={block.by}
          choices={[
            ['seconds', 'seconds'],
            ['breaths', 'slow breaths'],
          ]}
          sx={{ width: 150 }}
          onChange={(by) => change('Held for', (d) => void (d.by = by))}
        />
        <ChoiceField
          label="Clock"
          value={block.count}
          choices={[
            ['down', 'counts down'],
            ['up', 'counts up'],
          ]}
          sx={{ width: 150 }}
          onChange={(count) => change('Clock', (d) => void (d.count = count))}
        />
        <FigureFields block={block} />
      </Line>
    </Stack>
  );
}

function Game({ block }: { block: BlockOf<'game'> }) {
  const change = useChange(block);
  const { lesson } = useOpenLesson();
  const explainMs = speechMs(block.script, lesson.settings.speechWpm);
  return (
    <Stack spacing={2}>
      <Line>
        <OneExercise block={block} />
        <ChoiceField
          label="Played"
          value={block.goal}
          choices={[
            ['clock', 'against the clock'],
            ['target', 'until a target is reached'],
          ]}
          sx={{ width: 220 }}
          onChange={(goal) => change('Played', (d) => void (d.goal = goal))}
        />
        <ChoiceField
          label="Score"
          value={block.scoring}
          choices={[
            ['count', 'how many'],
            ['time', 'how fast'],
            ['points', 'points per target'],
            ['streak', 'longest streak'],
          ]}
          onChange={(scoring) => change('Score', (d) => void (d.scoring = scoring))}
        />
      </Line>
      <Line>
        <FigureFields
          block={block}
          keys={['playMs', 'target', 'tries', 'restMs', 'scoreMs', 'leadInMs']}
        />
      </Line>
      <Line>
        <Spoken
          block={block}
          figure="explainMs"
          label="Explained as long as the words take"
          spokenMs={explainMs}
        />
      </Line>
      {block.scoring === 'points' && <ScoreTargets block={block} />}
    </Stack>
  );
}

function Question({ block }: { block: BlockOf<'question'> }) {
  const change = useChange(block);
  const { lesson } = useOpenLesson();
  const alone = { ...block, thinkMs: 0, pauseAfter: null };
  return (
    <Stack spacing={2}>
      <TextLine
        label="Question"
        value={block.question}
        most={LIMITS.line}
        onChange={(text) => change('Question', (d) => void (d.question = text))}
      />
      <TextLine
        label="Answer"
        value={block.answer}
        most={LIMITS.line}
        onChange={(text) => change('Answer', (d) => void (d.answer = text))}
      />
      <Choices block={block} />
      <Line>
        <FigureFields block={block} keys={['thinkMs']} />
        <Spoken
          block={block}
          figure="askMs"
          label="Asked as long as the words take"
          spokenMs={measureBlock({ ...alone, askMs: null, answerMs: 0 }, lesson)}
        />
        <Spoken
          block={block}
          figure="answerMs"
          label="Answered as long as the words take"
          spokenMs={measureBlock(
            { ...alone, script: '', question: '', askMs: 0, answerMs: null },
            lesson,
          )}
        />
      </Line>
    </Stack>
  );
}

function Card({ block }: { block: BlockOf<'card'> }) {
  const change = useChange(block);
  const { lesson } = useOpenLesson();
  return (
    <Stack spacing={2}>
      <CardLines block={block} />
      <Line>
        <ChoiceField
          label="About"
          value={block.about}
          choices={[
            ['kit', 'kit'],
            ['space', 'space'],
            ['rules', 'rules'],
            ['other', 'something else'],
          ]}
          sx={{ width: 150 }}
          onChange={(about) => change('About', (d) => void (d.about = about))}
        />
        <Spoken
          block={block}
          figure="fixedMs"
          label={`As long as a ${readerAge(lesson.audience.ageFrom)}-year-old takes to read it`}
          spokenMs={measureBlock({ ...block, fixedMs: null, pauseAfter: null }, lesson)}
        />
      </Line>
      {lesson.audience.ageFrom < YOUNGEST_READER && (
        <Typography color="text.secondary">
          Children under {YOUNGEST_READER} do not read yet. Say it aloud, or show it in a picture.
        </Typography>
      )}
    </Stack>
  );
}

/** The figures and choices that belong to the block's kind. */
export function KindFigures({ block }: { block: Block }) {
  const change = useChange(block);
  const { lesson } = useOpenLesson();
  switch (block.kind) {
    case 'talk':
      return (
        <Line>
          <Spoken
            block={block}
            figure="fixedMs"
            label="As long as the words take"
            spokenMs={measureBlock({ ...block, fixedMs: null, pauseAfter: null }, lesson)}
          />
        </Line>
      );
    case 'intervals':
      return <IntervalsFigures block={block} />;
    case 'reps':
      return <Reps block={block} />;
    case 'hold':
      return <Hold block={block} />;
    case 'counts':
      return (
        <Stack spacing={2}>
          <Moves block={block} />
          <Line>
            <FigureFields block={block} />
            <AimField
              label={teacherText('counts.bar')}
              value={block.bar ?? null}
              most={LIMITS.beats.max}
              onChange={(bar) =>
                change('Bar', (d) => setOrLeave(d as BlockOf<'counts'>, 'bar', bar ?? undefined))
              }
            />
          </Line>
        </Stack>
      );
    case 'routine':
      return (
        <Stack spacing={2}>
          <Moves block={block} />
          <Line>
            <ChoiceField
              label={teacherText('routine.grow')}
              value={block.grow}
              choices={growths.map((grow) => [grow, teacherText(`routine.grow-${grow}`)] as const)}
              sx={{ width: 230 }}
              onChange={(grow) => change('Grows', (d) => Object.assign(d, { grow }))}
            />
            <FigureFields block={block} />
            <RestsEnd block={block} />
            <AimField
              label={teacherText('routine.stem')}
              value={block.stem ?? null}
              most={Math.max(1, block.moves.length - 1)}
              onChange={(stem) =>
                change('Known moves', (d) =>
                  setOrLeave(d as BlockOf<'routine'>, 'stem', stem ?? undefined),
                )
              }
            />
          </Line>
          <Combination block={block} />
        </Stack>
      );
    case 'laps':
      return (
        <Line>
          <OneExercise block={block} />
          <FigureFields block={block} />
        </Line>
      );
    case 'game':
      return <Game block={block} />;
    case 'called':
      return <Called block={block} />;
    case 'question':
      return <Question block={block} />;
    case 'card':
      return <Card block={block} />;
  }
}

/** Shown before it is done. */
export function Showing({ block }: { block: Extract<Block, { demo: unknown }> }) {
  const change = useChange(block);
  const demo = block.demo;
  const hasFigures = demo !== null && figureOf(block, 'demo.times') !== undefined;
  return (
    <Line>
      <FormControlLabel
        label="Shown before it is done"
        control={
          <Switch
            checked={demo !== null}
            onChange={(_event, on) =>
              change(
                'Showing',
                (d) => void (d.demo = on ? { times: 2, speed: 'full', onceMs: 3_000 } : null),
                false,
              )
            }
          />
        }
      />
      {hasFigures && (
        <>
          <FigureFields block={block} keys={['demo.times', 'demo.onceMs']} />
          <ChoiceField
            label="Speed"
            value={demo.speed}
            choices={[
              ['full', 'full speed'],
              ['half', 'half speed'],
            ]}
            sx={{ width: 140 }}
            onChange={(speed) => change('Speed', (d) => void (d.demo && (d.demo.speed = speed)))}
          />
        </>
      )}
    </Line>
  );
}
