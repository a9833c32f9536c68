import { useState, type ReactNode } from 'react';
import { clockText } from '@zest/core/time';
import type { Choices } from './device.ts';
import { STEP_MS } from './use-lesson-keys.ts';
import { say } from './words/index.ts';

interface LessonControlsProps {
  atMs: number;
  durationMs: number;
  playing: boolean;
  ended: boolean;
  choices: Pick<Choices, 'captions' | 'sound'>;
  onChoose: (change: Partial<Choices>) => void;
  onToggle: () => void;
  onSeek: (ms: number) => void;
  onAgain: (slowly: boolean) => void;
  onSkip: () => void;
  onFullScreen: () => void;
  /** Where else one can go. */
  children: ReactNode;
}

/** Three big buttons under the video; all else is behind the third. */
export function LessonControls({
  atMs,
  durationMs,
  playing,
  ended,
  choices: { captions, sound },
  onChoose,
  onToggle,
  onSeek,
  onAgain,
  onSkip,
  onFullScreen,
  children,
}: LessonControlsProps) {
  const [isOpen, setOpen] = useState(false);
  return (
    <div className="controls">
      <button type="button" className="big" onClick={onToggle}>
        {say(playing ? 'lesson.stop' : ended ? 'lesson.once-more' : 'lesson.start')}
      </button>
      <button type="button" onClick={() => onAgain(false)}>
        {say('lesson.again')}
      </button>
      <button
        type="button"
        aria-expanded={isOpen}
        aria-controls="more-controls"
        onClick={() => setOpen(!isOpen)}
      >
        {say('lesson.more')}
      </button>
      <span className="time">
        {clockText(atMs)} / {clockText(durationMs)}
      </span>
      <div id="more-controls" className="more" hidden={!isOpen}>
        <label className="place">
          <span className="unseen">{say('lesson.place')}</span>
          <input
            type="range"
            min={0}
            max={durationMs}
            step={1000}
            value={atMs}
            aria-valuetext={say('lesson.of', { at: clockText(atMs), all: clockText(durationMs) })}
            onChange={(event) => onSeek(Number(event.target.value))}
          />
        </label>
        <button type="button" onClick={() => onSeek(atMs - STEP_MS)}>
          {say('lesson.back')}
        </button>
        <button type="button" onClick={() => onAgain(true)}>
          {say('lesson.slowly')}
        </button>
        <button type="button" onClick={onSkip}>
          {say('lesson.leave-out')}
        </button>
        <button
          type="button"
          aria-pressed={captions}
          onClick={() => onChoose({ captions: !captions })}
        >
          {say(captions ? 'lesson.words-on' : 'lesson.words-off')}
        </button>
        <button type="button" aria-pressed={sound} onClick={() => onChoose({ sound: !sound })}>
          {say(sound ? 'lesson.sound-on' : 'lesson.sound-off')}
        </button>
        <button type="button" onClick={onFullScreen}>
          {say('lesson.whole-screen')}
        </button>
        {children}
      </div>
    </div>
  );
}
