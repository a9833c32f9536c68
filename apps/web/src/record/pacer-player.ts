import { pacerTones, type PacerEvent, type PacerTone } from '@zest/core/script';

/** What is due within this is handed to the sound card; the rest can still be called off. */
const AHEAD_S = 0.6;
const LOOK_EVERY_MS = 150;
const SPOKEN_LOUD = 0.9;
/** A word begins once its tone has been heard. */
const WORD_AFTER_S = 0.06;

/** Plays a pacer's events on the clock of the sound card; knows nothing of what they mean. */
export class PacerPlayer {
  #events: readonly PacerEvent[] = [];
  #next = 0;
  #zeroS = 0;
  #timer: ReturnType<typeof setInterval> | undefined;
  readonly #sounding = new Set<AudioScheduledSourceNode>();

  constructor(
    private readonly audio: AudioContext,
    private readonly out: AudioNode,
    private readonly spoken: ReadonlyMap<string, AudioBuffer>,
  ) {}

  /**
   * Plays the events; `zeroS` is the moment of the audio clock their times count from. What lies in
   * the past is left out.
   */
  start(events: readonly PacerEvent[], zeroS: number): void {
    this.stop();
    this.#events = events;
    this.#zeroS = zeroS;
    this.#next = events.findIndex(({ atMs }) => zeroS + atMs / 1000 >= this.audio.currentTime);
    if (this.#next < 0) this.#next = events.length;
    this.#timer = setInterval(() => this.#look(), LOOK_EVERY_MS);
    this.#look();
  }

  /** Silence at once; nothing more is played. */
  stop(): void {
    clearInterval(this.#timer);
    for (const node of this.#sounding) node.stop();
    this.#sounding.clear();
    this.#next = this.#events.length;
  }

  #look(): void {
    for (;;) {
      const event = this.#events[this.#next];
      if (!event) return;
      const atS = this.#zeroS + event.atMs / 1000;
      if (atS > this.audio.currentTime + AHEAD_S) return;
      this.#next += 1;
      this.#tone(event.tone, atS);
      const word = event.say === '' ? undefined : this.spoken.get(event.say);
      if (word) this.#play(word, atS + WORD_AFTER_S);
    }
  }

  #tone(tone: PacerTone, atS: number): void {
    const { hz, ms, loud } = pacerTones[tone];
    const wave = new OscillatorNode(this.audio, { frequency: hz });
    const gain = new GainNode(this.audio, { gain: 0 });
    const endS = atS + ms / 1000;
    gain.gain.setValueAtTime(0, atS);
    gain.gain.linearRampToValueAtTime(loud, atS + 0.005);
    gain.gain.setValueAtTime(loud, endS - 0.03);
    gain.gain.linearRampToValueAtTime(0, endS);
    wave.connect(gain).connect(this.out);
    this.#keep(wave, atS);
    wave.stop(endS + 0.02);
  }

  #play(buffer: AudioBuffer, atS: number): void {
    const source = new AudioBufferSourceNode(this.audio, { buffer });
    source.connect(new GainNode(this.audio, { gain: SPOKEN_LOUD })).connect(this.out);
    this.#keep(source, atS);
  }

  #keep(node: AudioScheduledSourceNode, atS: number): void {
    this.#sounding.add(node);
    node.onended = () => this.#sounding.delete(node);
    node.start(atS);
  }
}
