import { useMemo, useState } from 'react';
import type { FollowLesson, TelevisionCommand, TelevisionState } from '@zest/contract';
import { clockText } from '@zest/core/time';
import type { Score, SkipReason } from '@zest/core/results';
import type { Choices, Me } from './device.ts';
import { ScorePanel } from './ScorePanel.tsx';
import { SkipDialog } from './SkipDialog.tsx';
import type { LessonSource } from './source.ts';
import { askMoments, chosenLevels, withAim } from './steps.ts';
import { useLine } from './television.ts';
import { Unsent } from './Unsent.tsx';
import { useLog } from './use-log.ts';
import { useOwnLines } from './use-own-lines.ts';
import { useSkipping } from './use-skipping.ts';
import { say } from './words/index.ts';

interface RemoteControlProps {
  lesson: FollowLesson;
  source: LessonSource;
  screen: string;
  choices: Choices;
  me: Me | null;
  onLeave: () => void;
}

const waitWords = {
  practice: 'remote.practice',
  score: 'number.name',
  part: 'remote.part',
  end: 'remote.end',
} as const;

type Send = (command: TelevisionCommand['command']) => void;

/** What the large button does next. */
const mainWord = ({ started, waits, playing }: TelevisionState) => {
  if (!started) return 'lesson.start';
  if (waits) return 'lesson.go-on';
  return playing ? 'lesson.stop' : 'lesson.start';
};

function RemoteButtons({
  state,
  send,
  onSkip,
}: {
  state: TelevisionState;
  send: Send;
  onSkip: () => void;
}) {
  return (
    <div className="remote-buttons">
      <button
        type="button"
        className="big"
        onClick={() => send(!state.started ? 'start' : state.waits ? 'go on' : 'toggle')}
      >
        {say(mainWord(state))}
      </button>
      <button type="button" onClick={() => send('back')}>
        {say('lesson.back')}
      </button>
      <button type="button" onClick={() => send('again')}>
        {say('lesson.again')}
      </button>
      <button type="button" onClick={() => send('slowly')}>
        {say('lesson.slowly')}
      </button>
      <button type="button" onClick={onSkip}>
        {say('lesson.leave-out')}
      </button>
    </div>
  );
}

/**
 * The phone while the lesson plays on a television: large buttons, and the numbers, which go by
 * this phone's student.
 */
export function RemoteControl({
  lesson,
  source,
  screen,
  choices,
  me,
  onLeave,
}: RemoteControlProps) {
  const [state, setState] = useState<TelevisionState | null>(null);
  const line = useLine(
    source.code,
    screen,
    'remote',
    (message) => message.kind === 'state' && setState(message),
  );
  const log = useLog(source, me, lesson.title);
  const myLines = useOwnLines(source.code, me);
  const moments = useMemo(() => askMoments(lesson), [lesson]);
  const levels = useMemo(
    () => chosenLevels(lesson.blocks, choices.level, new Map()),
    [lesson.blocks, choices.level],
  );
  const send: Send = (command) => line.tell({ kind: 'command', command });
  const moment =
    state?.waits === 'score'
      ? moments.find(
          ({ prompt, tryNo }) => prompt.blockId === state.blockId && tryNo === state.tryNo,
        )
      : undefined;
  const block = lesson.blocks.find(({ id }) => id === state?.blockId);
  const save = (scores: Score[]) => {
    for (const score of scores) {
      log.note(score);
      myLines.add(score);
    }
    send('go on');
  };
  const { asked, ask, keepOn } = useSkipping(() => send('toggle'));
  const skip = (reason: SkipReason) => {
    if (asked) log.note({ kind: 'skipped', blockId: asked.id, title: asked.title, reason });
    send('skip');
    keepOn();
  };
  return (
    <main className="sheet remote-control" aria-label={say('remote.name')}>
      <h1>{lesson.title}</h1>
      {line.fault && <p role="alert">{line.fault}</p>}
      <p role="status">
        {!state && say('remote.waiting')}
        {state && line.others === 0 && say('remote.gone')}
        {state &&
          line.others > 0 &&
          (state.waits
            ? say(waitWords[state.waits])
            : `${say(state.playing ? 'remote.playing' : 'remote.standing', { at: clockText(state.atMs) })}` +
              `${block ? `: ${block.title}` : ''}`)}
      </p>
      {moment && (
        <ScorePanel
          key={`${moment.prompt.blockId} ${moment.tryNo}`}
          moment={{
            ...moment,
            prompt: withAim(moment.prompt, levels.form(moment.prompt.blockId)),
          }}
          level={levels.of(moment.prompt.blockId)}
          counted={null}
          best={myLines.bestOf}
          onSave={save}
          onGoOn={() => send('go on')}
        />
      )}
      {asked && <SkipDialog title={asked.title} onSkip={skip} onCancel={keepOn} />}
      {state && !moment && (
        <RemoteButtons
          state={state}
          send={send}
          onSkip={() => block && ask(block, state.playing)}
        />
      )}
      <p>
        <button type="button" onClick={onLeave}>
          {say('remote.leave')}
        </button>
      </p>
      {log.waiting > 0 && <p className="soft">{say('remote.to-be-sent', { n: log.waiting })}</p>}
      <Unsent log={log} />
    </main>
  );
}
