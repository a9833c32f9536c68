import { useRef } from 'react';
import type { LessonPlayer } from '../player/player.ts';
import { Stage } from '../player/Stage.tsx';
import { BlockPanel } from './BlockPanel.tsx';
import { EndSheet } from './EndSheet.tsx';
import { LessonControls } from './LessonControls.tsx';
import { NowAndThen, PartEnd, Parts } from './Parts.tsx';
import { announcement, Readout } from './Readout.tsx';
import { ScorePanel } from './ScorePanel.tsx';
import { SkipDialog } from './SkipDialog.tsx';
import { StudentTurn } from './turn/StudentTurn.tsx';
import { toldFrom, withAim, type LevelChoice } from './steps.ts';
import { useAnswers } from './use-answers.ts';
import { useLesson, type Following, type LessonProps } from './use-lesson.ts';
import { useOwnLines, type OwnLines } from './use-own-lines.ts';
import { useWakeLock } from '../ui/use-wake-lock.ts';
import { say } from './words/index.ts';

/** What a student counts and chooses of a block, in the picture and below it alike. */
const ownPart = (following: Following, blockId: string) => ({
  prompt: following.moments.find(({ prompt }) => prompt.blockId === blockId)?.prompt ?? null,
  counted: following.counted,
  onCount: following.setCounted,
  level: following.wishedLevel(blockId),
  onLevel: (level: LevelChoice) => following.wishLevel(blockId, level),
});

/** What is over the picture while the video waits for the student. */
function Waiting({
  following,
  lines,
  lesson: { blocks },
  footage,
  choices,
}: Pick<LessonProps, 'lesson' | 'footage' | 'choices'> & {
  following: Following;
  lines: OwnLines;
}) {
  const { pause, stop, ended, counted, levels, log, skipping, actions } = following;
  const at = blocks.findIndex(({ id }) => id === pause?.blockId);
  return (
    <>
      {pause && (
        <StudentTurn
          mark={pause}
          assembly={following.assembly}
          block={blocks[at]}
          takeUrl={footage.takeUrl}
          choices={choices}
          {...ownPart(following, pause.blockId)}
          next={ended ? '' : (blocks[at + 1]?.title ?? '')}
          onGoOn={actions.endPractice}
        />
      )}
      {!pause && stop?.kind === 'ask' && (
        <ScorePanel
          key={`${stop.moment.prompt.blockId} ${stop.moment.tryNo}`}
          moment={{
            ...stop.moment,
            prompt: withAim(stop.moment.prompt, levels.form(stop.moment.prompt.blockId)),
          }}
          level={levels.of(stop.moment.prompt.blockId)}
          counted={counted}
          best={lines.bestOf}
          onSave={(scores) => {
            for (const score of scores) {
              log.note(score);
              lines.add(score);
            }
            actions.goOnFrom(stop);
          }}
          onGoOn={() => actions.goOnFrom(stop)}
        />
      )}
      {!pause && stop?.kind === 'part' && (
        <PartEnd done={stop.done} next={stop.next} onGoOn={() => actions.goOnFrom(stop)} />
      )}
      {skipping.asked && (
        <SkipDialog title={skipping.asked.title} onSkip={actions.skip} onCancel={skipping.keepOn} />
      )}
    </>
  );
}

/** The video with its overlays, the big controls, and where we are. */
export function Lesson(props: LessonProps) {
  const { lesson, source, footage, choices, onChoose, me, onLeave } = props;
  const player = useRef<LessonPlayer>(null);
  const screen = useRef<HTMLElement>(null);
  const following = useLesson(props, { player, screen });
  const { assembly, levels, scene, atMs, pause, stop, block, ended, log, actions } = following;
  const myLines = useOwnLines(source.code, me);
  const answers = useAnswers(log.note);
  useWakeLock();
  return (
    <main
      ref={screen}
      className={`lesson${choices.larger ? ' larger' : ''}${choices.contrast ? ' contrast' : ''}`}
    >
      <h1 className="unseen" lang={assembly.words.language}>
        {lesson.title}
      </h1>
      <div className="picture">
        <Stage
          assembly={assembly}
          takeUrl={footage.takeUrl}
          playerRef={player}
          {...following.heard}
          caption={choices.captions ? (scene?.caption ?? null) : null}
          label={say('lesson.video-of', { title: lesson.title })}
          waits={say('lesson.loading')}
        />
        <Waiting {...{ following, lesson, footage, choices }} lines={myLines} />
      </div>
      <p className="unseen" aria-live="polite">
        {scene && announcement(scene, assembly.words.language)}
      </p>
      {following.fault && (
        <p role="alert" className="fault">
          {following.fault}
        </p>
      )}
      {choices.strip && <NowAndThen chapters={assembly.chapters} atMs={atMs} />}
      <Readout scene={scene} />
      {block && (
        <BlockPanel
          key={block.id}
          block={block}
          scene={scene}
          {...ownPart(following, block.id)}
          onAnswer={(text) =>
            block.question &&
            log.note({ kind: 'answer', blockId: block.id, question: block.question.question, text })
          }
          answers={answers}
          toldFromMs={toldFrom(assembly, block.id)}
        />
      )}
      <LessonControls
        atMs={atMs}
        durationMs={assembly.durationMs}
        playing={following.playing}
        ended={ended}
        choices={choices}
        onChoose={onChoose}
        onToggle={actions.toggle}
        onSeek={actions.seek}
        onAgain={actions.again}
        onSkip={actions.askToSkip}
        onFullScreen={actions.fullScreen}
      >
        <Parts
          chapters={assembly.chapters}
          atMs={atMs}
          furthestMs={following.furthestMs}
          onGo={actions.seek}
        />
      </LessonControls>
      {ended && !pause && !stop && (
        <EndSheet
          lesson={lesson}
          level={levels.of}
          log={log}
          goesTo={source.report ? 'platform' : me ? 'teacher' : 'nobody'}
          code={source.code}
          lines={myLines}
          answers={answers}
          onLeave={onLeave}
        />
      )}
    </main>
  );
}
