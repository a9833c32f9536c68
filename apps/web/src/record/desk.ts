import { teacherText } from '@zest/core/words';
import { markSamples, type MarkKind } from '@zest/core/signal';

/**
 * No loudspeaker on a cable is later; one over the air may be, and is then not made up for wholly.
 */
const MOST_LATENCY_S = 0.5;
/** Loudness of the mark in the recording, and on the loudspeaker for other cameras. */
const MARK_LOUD = { recorded: 0.35, speaker: 0.8 } as const;

/**
 * Where sounds come together: what is recorded (microphone, marks, and the pacer if it is to be
 * heard there) and what the loudspeaker plays (pacer, and marks for other cameras). One clock for
 * all of it.
 */
export class SoundDesk {
  /** Large buffers: a busy machine then loses no sound. What they delay is made up for. */
  readonly audio = new AudioContext({ latencyHint: 'playback' });
  /** Into this goes what the pacer plays. */
  readonly pacer: GainNode;
  readonly level: AnalyserNode;
  readonly #recorded: MediaStreamAudioDestinationNode;
  readonly #toRecorded: GainNode;
  /**
   * What goes into the recording directly waits until the loudspeaker is heard, as the microphone
   * hears it.
   */
  readonly #direct: DelayNode;
  readonly #markSpeaker: GainNode;
  #microphone: MediaStreamAudioSourceNode | null = null;

  constructor() {
    const { audio } = this;
    this.#recorded = audio.createMediaStreamDestination();
    this.pacer = new GainNode(audio);
    this.#toRecorded = new GainNode(audio, { gain: 0 });
    this.#direct = new DelayNode(audio, { maxDelayTime: MOST_LATENCY_S });
    this.#direct.connect(this.#recorded);
    this.#markSpeaker = new GainNode(audio, { gain: 0 });
    this.level = new AnalyserNode(audio, { fftSize: 8_192 });
    this.pacer.connect(audio.destination);
    this.pacer.connect(this.#toRecorded).connect(this.#direct);
    this.#markSpeaker.connect(audio.destination);
  }

  /** The moment of the audio clock that is being heard now, in seconds. */
  get heardS(): number {
    return this.audio.currentTime - this.#direct.delayTime.value;
  }

  /** Starts the clock, and takes the loudspeaker's delay into account. */
  async wake(): Promise<void> {
    await this.audio.resume();
    // Browsers that do not know it say nothing or 0.
    this.#direct.delayTime.value = Math.min(MOST_LATENCY_S, this.audio.outputLatency || 0);
  }

  /** What is recorded, as a track of sound. */
  get track(): MediaStreamTrack {
    const [track] = this.#recorded.stream.getAudioTracks();
    if (!track) throw new Error(teacherText('filming.browser-gives-no-sound'));
    return track;
  }

  /** Takes the microphone of a stream; none when it has no sound. */
  listenTo(stream: MediaStream | null): void {
    this.#microphone?.disconnect();
    this.#microphone = null;
    if (!stream || stream.getAudioTracks().length === 0) return;
    this.#microphone = this.audio.createMediaStreamSource(stream);
    this.#microphone.connect(this.#recorded);
    this.#microphone.connect(this.level);
  }

  /**
   * @param recorded the pacer is heard in the recording;
   * @param forOthers the loudspeaker plays the marks
   */
  route({ recorded, forOthers }: { recorded: boolean; forOthers: boolean }): void {
    this.#toRecorded.gain.value = recorded ? 1 : 0;
    this.#markSpeaker.gain.value = forOthers ? MARK_LOUD.speaker : 0;
  }

  /**
   * Plays a mark at a moment of the audio clock, into the recording in any case.
   * @returns what calls it off
   */
  mark(kind: MarkKind, number: number, atS: number): () => void {
    const samples = markSamples(kind, number, this.audio.sampleRate);
    const buffer = this.audio.createBuffer(1, samples.length, this.audio.sampleRate);
    buffer.copyToChannel(samples as Float32Array<ArrayBuffer>, 0);
    const source = new AudioBufferSourceNode(this.audio, { buffer });
    source.connect(new GainNode(this.audio, { gain: MARK_LOUD.recorded })).connect(this.#direct);
    source.connect(this.#markSpeaker);
    source.start(atS);
    return () => source.stop();
  }

  /** Two short notes on the loudspeaker only: look at the sign. */
  nudge(): void {
    const { audio } = this;
    for (const [i, hz] of [740, 554].entries()) {
      const atS = audio.currentTime + 0.02 + i * 0.16;
      const wave = new OscillatorNode(audio, { frequency: hz, type: 'triangle' });
      const gain = new GainNode(audio, { gain: 0 });
      gain.gain.setValueAtTime(0.4, atS);
      gain.gain.exponentialRampToValueAtTime(0.001, atS + 0.15);
      wave.connect(gain).connect(audio.destination);
      wave.start(atS);
      wave.stop(atS + 0.16);
    }
  }

  async close(): Promise<void> {
    this.listenTo(null);
    await this.audio.close();
  }
}
