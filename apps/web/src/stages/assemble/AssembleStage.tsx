import { Alert, Box } from '@mui/material';
import { routes, urlOf } from '@zest/contract';
import { findBlock, type Lesson } from '@zest/core/lesson';
import { indexAt } from '@zest/core/overlay';
import { teacherText } from '@zest/core/words';
import { useDeferredValue, type RefObject } from 'react';
import type { LessonPlayer } from '../../player/player.ts';
import { Stage } from '../../player/Stage.tsx';
import { StageOverlays } from '../../stage/StageOverlays.tsx';
import { takeUrl } from '../../app/take-url.ts';
import { PlacePicker } from './PlacePicker.tsx';
import { useCaption, usePlayMs, type PlayClock } from './play-clock.ts';
import { placing } from './use-changes.ts';
import type { Draft } from './with-draft.ts';
import type { usePreview } from './use-preview.ts';

const finishedUrl = (takeId: string, { lufs, lowCut, noise }: Lesson['finish']['sound']) =>
  urlOf(routes.takeFinished, { takeId }, { lufs, lowCut, noise });

type StageProps = Omit<Parameters<typeof Stage>[0], 'caption' | 'takeUrl'>;

function StageAndCaption({ clock, ...props }: StageProps & { clock: PlayClock }) {
  return <Stage {...props} takeUrl={takeUrl} caption={useCaption(clock)} />;
}

type Preview = ReturnType<typeof usePreview>;

/** What is on screen while the picture stands, to take hold of. */
function Held({ lesson, preview: { assembly, clock } }: { lesson: Lesson; preview: Preview }) {
  // After the picture: a hand on the slider does not wait for it.
  const ms = useDeferredValue(usePlayMs(clock));
  const blockId = assembly.blocks[indexAt(assembly.blocks, ms)]?.blockId;
  const block = blockId === undefined ? undefined : findBlock(lesson, blockId);
  return block && <StageOverlays lesson={lesson} block={block} cut={assembly} shownMs={ms} />;
}

interface AssembleStageProps {
  preview: Preview;
  player: RefObject<LessonPlayer | null>;
  lesson: Lesson;
  draft: Draft | null;
  onDraft: (draft: Draft) => void;
}

/** The picture, as large as its pane lets it, and over it the place that is being chosen. */
export function AssembleStage({ preview, player, lesson, draft, onDraft }: AssembleStageProps) {
  const { assembly, showsUpright, clock, isFinished, fault, playing } = preview;
  const place = draft?.isTried ? null : placing(draft, assembly, clock.ms);
  const shape = showsUpright ? '9 / 16' : '16 / 9';
  return (
    <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column', gap: 1 }}>
      {fault && (
        <Alert severity="error" onClose={() => preview.setFault(null)}>
          {fault}
        </Alert>
      )}
      <Box
        sx={{
          flex: 1,
          minHeight: 0,
          containerType: 'size',
          display: 'grid',
          placeItems: 'center',
        }}
      >
        <Box sx={{ position: 'relative', width: `min(100cqw, calc(100cqh * ${shape}))` }}>
          <StageAndCaption
            clock={clock}
            assembly={assembly}
            playerRef={player}
            onScene={preview.onScene}
            onPlaying={preview.onPlaying}
            onFault={preview.setFault}
            label={teacherText('transport.preview', { title: lesson.title })}
            waits={teacherText('transport.waits')}
            {...(isFinished && {
              soundUrl: (takeId: string) => finishedUrl(takeId, lesson.finish.sound),
            })}
          />
          {!playing && !draft && !showsUpright && <Held lesson={lesson} preview={preview} />}
          {place && draft && (
            <PlacePicker
              shape={place.shape}
              value={place.value}
              onPick={(box) => onDraft({ ...draft, edit: place.pick(box) })}
            />
          )}
        </Box>
      </Box>
    </Box>
  );
}
