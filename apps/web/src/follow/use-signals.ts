import { useEffect, useRef } from 'react';
import type { Assembly } from '@zest/core/assembly';
import { indexAt, type Scene } from '@zest/core/overlay';
import type { PacerEvent } from '@zest/core/script';
import { PacerPlayer } from '../record/pacer-player.ts';
import { useLatest } from '../ui/use-latest.ts';

interface Signals {
  assembly: Assembly;
  atMs: number;
  playing: boolean;
  isOn: boolean;
  rate: number;
  scene: Scene | null;
}

/** Further off than this, the video has been moved. */
const DRIFT_MS = 400;

/** Tones of clock and count beside the video, and commands spoken where no footage speaks them. */
export function useSignals({ assembly, atMs, playing, isOn, rate, scene }: Signals): void {
  const sound = useRef<{ audio: AudioContext; pacer: PacerPlayer }>(null);
  const expected = useRef<{ atMs: number; since: number }>(null);
  const isRunning = playing && isOn && rate === 1 && assembly.tones.length > 0;
  const start = useLatest(() => {
    if (!sound.current) {
      const audio = new AudioContext();
      sound.current = { audio, pacer: new PacerPlayer(audio, audio.destination, new Map()) };
    }
    const { audio, pacer } = sound.current;
    void audio.resume();
    expected.current = { atMs, since: performance.now() };
    pacer.start(
      assembly.tones.map((signal): PacerEvent => ({
        atMs: signal.atMs,
        tone: signal.tone,
        say: '',
      })),
      audio.currentTime - atMs / 1000,
    );
  });
  useEffect(() => {
    if (!isRunning) return;
    start();
    return () => sound.current?.pacer.stop();
  }, [isRunning, assembly, start]);
  useEffect(() => {
    if (!isRunning || !expected.current) return;
    const drift = atMs - (expected.current.atMs + performance.now() - expected.current.since);
    if (Math.abs(drift) > DRIFT_MS) start();
  }, [atMs, isRunning, start]);
  useEffect(() => () => void sound.current?.audio.close(), []);

  const command = scene?.items.find((item) => item.slot === 'cue' && item.moment === 'command');
  const text = command?.slot === 'cue' ? command.text : '';
  const isCard = assembly.segments[indexAt(assembly.segments, atMs)]?.source.kind === 'card';
  // The same command twice running is two commands: the counter tells them apart.
  const count = scene?.items.find((item) => item.slot === 'counter');
  const call = text && isCard ? `${count?.slot === 'counter' ? count.rep : 0} ${text}` : '';
  useEffect(() => {
    if (!playing || !isOn || call === '' || !('speechSynthesis' in window)) return;
    const words = new SpeechSynthesisUtterance(call.slice(call.indexOf(' ') + 1));
    words.lang = assembly.words.language;
    speechSynthesis.cancel();
    speechSynthesis.speak(words);
  }, [call, playing, isOn, assembly.words.language]);
}
