import type { Block, Lesson } from '@zest/core/lesson';
import { pacerEvents } from '@zest/core/script';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { PacerPlayer } from '../record/pacer-player.ts';
import { fetchSpoken } from '../record/spoken.ts';
import { useLatest } from '../ui/use-latest.ts';

/** How fast a block can be rehearsed; words are said only as fast as they are. */
export const speeds = [0.5, 1, 2] as const;
export type Speed = (typeof speeds)[number];

interface Sound {
  audio: AudioContext;
  pacer: PacerPlayer;
  words: Map<string, AudioBuffer>;
}

export interface Rehearsal {
  isPlaying: boolean;
  speed: Speed;
  setSpeed: (speed: Speed) => void;
  /** The moment of the block, read on every display frame. */
  momentMs: () => number;
  /** The same, a few times a second, for what is written. */
  shownMs: number;
  seek: (ms: number) => void;
  play: () => void;
  stop: () => void;
  /** To the call before or after. */
  jump: (by: -1 | 1) => void;
}

/** Often enough for a clock that is read, seldom enough to cost nothing. */
const SHOW_EVERY_MS = 120;
/** Just after a call, the one before is meant. */
const JUST_CALLED_MS = 700;

/**
 * Plays a block before anything of it is filmed: its time, and the pacer's tones and words. At its
 * end `goOn` may choose another block, which is then played.
 */
export function useRehearsal(
  block: Block,
  lesson: Lesson,
  lengthMs: number,
  goOn: () => boolean,
): Rehearsal {
  const [isPlaying, setPlaying] = useState(false);
  const [speed, setSpeed] = useState<Speed>(1);
  const { id } = block;
  const [shown, setShown] = useState({ id, ms: 0 });
  const at = useRef({ id, ms: 0, since: 0 });
  const running = useRef<Speed | null>(null);
  const sound = useRef<Sound>(null);
  const events = useMemo(() => pacerEvents(block, lesson), [block, lesson]);

  const momentMs = useCallback(() => {
    if (at.current.id !== id) return 0;
    const { ms, since } = at.current;
    const now = running.current === null ? ms : ms + (performance.now() - since) * running.current;
    return Math.min(now, Math.max(0, lengthMs - 1));
  }, [id, lengthMs]);

  const sing = useLatest(() => {
    const { audio, pacer } = (sound.current ??= openSound());
    void audio.resume();
    const from = momentMs();
    const due = events.map((event) => ({
      ...event,
      atMs: event.atMs / speed,
      // Words at another speed than their own would lie over each other.
      say: speed === 1 ? event.say : '',
    }));
    pacer.start(due, audio.currentTime - from / speed / 1000);
  });
  const run = useLatest(() => {
    at.current = { id, ms: momentMs(), since: performance.now() };
    running.current = speed;
    sing();
  });
  const halt = useLatest(() => {
    at.current = { id, ms: momentMs(), since: 0 };
    running.current = null;
    sound.current?.pacer.stop();
    setShown({ id, ms: at.current.ms });
  });
  const end = useLatest(() => void (goOn() || setPlaying(false)));

  useEffect(() => {
    if (!isPlaying) return;
    run();
    const timer = setInterval(() => {
      const ms = momentMs();
      setShown({ id, ms });
      if (ms >= lengthMs - 1) end();
    }, SHOW_EVERY_MS);
    return () => {
      clearInterval(timer);
      halt();
    };
  }, [id, isPlaying, speed, events, lengthMs, momentMs, run, halt, end]);

  const language = lesson.settings.counts.language;
  useEffect(() => {
    if (!isPlaying || !sound.current) return;
    const { audio, words } = sound.current;
    const said = [...new Set(events.flatMap(({ say }) => (say === '' ? [] : [say])))];
    void fetchSpoken(audio, language, said, words);
  }, [isPlaying, events, language]);
  useEffect(() => () => void sound.current?.audio.close(), []);

  const seek = (ms: number) => {
    at.current = { id, ms: Math.max(0, Math.min(ms, lengthMs - 1)), since: performance.now() };
    setShown({ id, ms: at.current.ms });
    if (running.current !== null) sing();
  };
  return {
    ...{ isPlaying, speed, setSpeed, momentMs, seek },
    shownMs: shown.id === id ? shown.ms : 0,
    play: () => {
      if (momentMs() >= lengthMs - 1) seek(0);
      setPlaying(true);
    },
    stop: () => setPlaying(false),
    jump: (by) => {
      const now = momentMs();
      const next =
        by > 0
          ? events.find(({ atMs }) => atMs > now + 1)
          : events.findLast(({ atMs }) => atMs < now - JUST_CALLED_MS);
      seek(next?.atMs ?? (by > 0 ? lengthMs : 0));
    },
  };
}

function openSound(): Sound {
  const audio = new AudioContext();
  const words = new Map<string, AudioBuffer>();
  return { audio, words, pacer: new PacerPlayer(audio, audio.destination, words) };
}
