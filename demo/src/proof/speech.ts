import { execFileSync } from 'node:child_process';
import { chance } from '@zest/performer';

/** A recording put together from known pieces. */
export interface SpokenProof {
  name: string;
  rate: number;
  samples: Float32Array;
  /** The script, sentence by sentence. */
  script: string[];
  /** Where each sentence is really said; null where it was left out. */
  said: ({ startMs: number; endMs: number } | null)[];
  added: { startMs: number; endMs: number }[];
}

const SUBJECTS = [
  'the rope',
  'your disc',
  'the band',
  'your front foot',
  'both hands',
  'your shoulders',
  'the line on the floor',
  'your breath',
  'the grip',
  'your left knee',
  'the chair',
  'your head',
];
const DOS = [
  'Keep',
  'Hold',
  'Watch',
  'Feel',
  'Move',
  'Turn',
  'Lift',
  'Lower',
  'Follow',
  'Rest',
  'Press',
  'Place',
];
const HOWS = [
  'close to the body',
  'for three quiet breaths',
  'a little higher than before',
  'as slowly as you can',
  'without looking down',
  'before you begin the next one',
  'while the other side stays still',
  'in the middle of your space',
  'until the clock stops',
  'just above the ground',
];
const OPENS = [
  'Now',
  'After that',
  'This time',
  'When you are ready',
  'If there is room',
  'With soft knees',
  'On the other side',
  'For the last round',
  'Once more',
];
const LONE = [
  'Well done so far.',
  'Here we go.',
  'That was the first part.',
  'Have a sip of water.',
  'Change sides.',
  'You need a rope and two steps of room around you.',
  'Clear the floor, so that nothing can trip you.',
  'Stop if anything hurts and tell a grown-up.',
  'Today we learn to skip without a double bounce.',
  'Let us begin with the warm-up.',
];
const ADLIBS = {
  opens: [
    'Oh, wait a moment',
    'Sorry about that',
    'Right, where was I',
    'By the way',
    'I have to say',
    'You know what',
    'Last week somebody asked me',
    'I forgot to tell you',
  ],
  goesOn: [
    'that one is my favourite',
    'the cat has just walked in',
    'my shoe lace has come undone',
    'I hope you can all hear me over the rain',
    'it looks easier than it is',
    'tell me how it went at the end of the week',
    'there is a fly around my head',
    'it took me a whole summer to learn',
    'do not worry about the noise outside',
  ],
};
const CALLS = [
  'Hey!',
  'Throw it here!',
  'Look at me!',
  'I want to go first!',
  'No, mine!',
  'Wait for me!',
  'Catch!',
  'Can I have a go?',
];
const CHILDREN = ['en-us+f5', 'en-gb+f2', 'en-gb-scotland+f4'];
const ELSEWHERE = {
  who: ['The library', 'A small boat', 'Our museum', 'Every gardener', 'The orchestra', 'A ferry'],
  did: ['opened', 'arrived', 'was painted', 'played a waltz', 'grew pumpkins', 'waited'],
  when: [
    'early on Sunday morning',
    'behind the cathedral',
    'during the thunderstorm',
    'for seven euros',
    'near the lighthouse',
  ],
  end: ['and nobody noticed', 'because of the holiday', 'until the bell rang', 'despite the fog'],
};

function makeScript(count: number, seed: number): string[] {
  const pick = <T>(list: readonly T[], salt: number) =>
    list[Math.floor(chance(seed * 911 + salt) * list.length)] as T;
  const seen = new Set<string>();
  const script: string[] = [];
  for (let i = 0; script.length < count; i += 1) {
    const body = `${pick(DOS, i * 7 + 1)} ${pick(SUBJECTS, i * 7 + 2)} ${pick(HOWS, i * 7 + 3)}`;
    const kind = chance(seed * 13 + i);
    const sentence =
      kind < 0.25
        ? pick(LONE, i * 7 + 4)
        : kind < 0.6
          ? `${body}.`
          : `${pick(OPENS, i * 7 + 5)}, ${body.charAt(0).toLowerCase()}${body.slice(1)}.`;
    if (seen.has(sentence)) continue;
    seen.add(sentence);
    script.push(sentence);
  }
  return script;
}

/** A script of which nothing is said in any recording here. */
export function scriptFromElsewhere(count: number, seed: number): string[] {
  const pick = (list: readonly string[], salt: number) =>
    list[Math.floor(chance(seed * 677 + salt) * list.length)] ?? '';
  const { who, did, when, end } = ELSEWHERE;
  return Array.from(
    { length: count },
    (_, i) =>
      `${pick(who, i * 5)} ${pick(did, i * 5 + 1)} ${pick(when, i * 5 + 2)} ${pick(end, i * 5 + 3)}.`,
  );
}

interface Voice {
  voice: string;
  wpm: number;
  pitch: number;
}

/**
 * A sentence spoken by the synthesiser, without the silence about it.
 * @returns samples at 22,050 a second
 */
function speak(text: string, { voice, wpm, pitch }: Voice): Float32Array {
  const wav = execFileSync(
    'espeak-ng',
    ['-v', voice, '-s', String(wpm), '-p', String(pitch), '--stdout', '--', text],
    { maxBuffer: 1 << 26 },
  );
  const samples = Float32Array.from(
    { length: (wav.length - 44) >> 1 },
    (_, i) => wav.readInt16LE(44 + 2 * i) / 32_768,
  );
  const loud = (value: number) => Math.abs(value) > 0.01;
  return samples.subarray(
    Math.max(0, samples.findIndex(loud) - 200),
    samples.findLastIndex(loud) + 200,
  );
}

export interface SpeechKind {
  name: string;
  voice: string;
  seed: number;
  sentences: number;
  /**
   * Parts of the sentences that are left out, and that are followed by words that are not in the
   * script.
   */
  skip: number;
  add: number;
  /** Noise and music under the speech, in decibels below it; null: none. */
  noiseDb: number | null;
  musicDb: number | null;
  beeps: boolean;
  /** Children calling, in decibels below the speech; null: none. */
  childrenDb: number | null;
  /** In a hall, whose sound takes a second to die away. */
  hall: boolean;
  /** Part of the sentences in which a word is said differently. */
  reworded: number;
}

const RATE = 22_050;

function adLib(open: number, goesOn: number): string {
  const pick = (list: readonly string[], at: number) => list[Math.floor(at * list.length)] ?? '';
  return `${pick(ADLIBS.opens, open)}, ${pick(ADLIBS.goesOn, goesOn)}.`;
}

const powerOf = (samples: Float32Array) =>
  samples.reduce((sum, value) => sum + value * value, 0) / Math.max(1, samples.length);

/** Children call in the background, each call as loud as the others. */
function withChildren(samples: Float32Array, rms: number, seed: number): void {
  let at = RATE;
  for (let i = 0; at < samples.length - 3 * RATE; i += 1) {
    const drawn = (salt: number) => chance(seed * 433 + i * 7 + salt);
    const call = speak(CALLS[Math.floor(drawn(1) * CALLS.length)] ?? '', {
      ...{ voice: CHILDREN[Math.floor(drawn(2) * CHILDREN.length)] ?? '', wpm: 180 },
      pitch: Math.round(75 + 20 * drawn(3)),
    });
    const gain = rms / Math.sqrt(powerOf(call));
    for (let n = 0; n < call.length; n += 1)
      samples[at + n] = (samples[at + n] ?? 0) + gain * (call[n] ?? 0);
    at += Math.round((0.8 + 2.5 * drawn(4)) * RATE);
  }
}

const HALL_S = 1;
const ECHOES = 220;

/** Echoes that come at random and die away, 60 dB in a second. */
function inHall(samples: Float32Array, seed: number): Float32Array {
  const out = samples.slice();
  for (let i = 0; i < ECHOES; i += 1) {
    const late = 0.008 + chance(seed * 211 + i * 2) * 0.9 * HALL_S;
    const gain =
      0.16 * Math.exp((-6.9 * late) / HALL_S) * (chance(seed * 211 + i * 2 + 1) < 0.5 ? -1 : 1);
    const by = Math.round(late * RATE);
    for (let n = by; n < out.length; n += 1)
      out[n] = (out[n] as number) + gain * (samples[n - by] as number);
  }
  return out;
}

/**
 * Puts a recording together: pauses to 12 s, each sentence a little faster or slower than the
 * others.
 */
export function makeSpeech(kind: SpeechKind): SpokenProof {
  const { seed } = kind;
  const script = makeScript(kind.sentences, seed);
  const part = (i: number, salt: number) => chance(seed * 7_717 + i * 31 + salt);
  const pieces: { at: number; samples: Float32Array }[] = [];
  const said: SpokenProof['said'] = [];
  const added: SpokenProof['added'] = [];
  let at = Math.round((0.6 + 1.5 * part(0, 9)) * RATE);
  const ms = (samples: number) => (samples * 1_000) / RATE;
  const lay = (text: string, i: number) => {
    const samples = speak(text, {
      voice: kind.voice,
      wpm: Math.round(140 + 40 * part(i, 1)),
      pitch: Math.round(35 + 25 * part(i, 2)),
    });
    pieces.push({ at, samples });
    const span = { startMs: ms(at), endMs: ms(at + samples.length) };
    at += samples.length;
    const long = part(i, 3);
    at += Math.round((long > 0.93 ? 5 + 7 * part(i, 4) : 0.25 + 1.1 * part(i, 4)) * RATE);
    return span;
  };
  for (const [i, sentence] of script.entries()) {
    if (i > 0 && part(i, 5) < kind.skip) {
      said.push(null);
      continue;
    }
    const words = sentence.split(' ');
    const changed =
      part(i, 6) < kind.reworded && words.length > 4
        ? [...words.slice(0, 2), 'really', ...words.slice(3)].join(' ')
        : sentence;
    said.push(lay(changed, i));
    if (part(i, 7) < kind.add) added.push(lay(adLib(part(i, 8), part(i, 11)), i + 5_000));
    if (kind.beeps && part(i, 10) < 0.15) {
      pieces.push({
        at,
        samples: Float32Array.from(
          { length: Math.round(RATE * 0.25) },
          (_, n) => 0.3 * Math.sin((2 * Math.PI * 880 * n) / RATE),
        ),
      });
      at += Math.round(RATE * 0.6);
    }
  }
  let samples: Float32Array = new Float32Array(at + RATE);
  let [power, count] = [0, 0];
  for (const piece of pieces) {
    piece.samples.forEach(
      (value, n) => (samples[piece.at + n] = (samples[piece.at + n] ?? 0) + value),
    );
    for (const value of piece.samples) power += value * value;
    count += piece.samples.length;
  }
  const speechRms = Math.sqrt(power / Math.max(1, count));
  if (kind.childrenDb !== null)
    withChildren(samples, speechRms * 10 ** (-kind.childrenDb / 20), seed);
  if (kind.hall) samples = inHall(samples, seed);
  const noise = kind.noiseDb === null ? 0.0006 : speechRms * 10 ** (-kind.noiseDb / 20);
  const music = kind.musicDb === null ? 0 : speechRms * 10 ** (-kind.musicDb / 20);
  let hiss = 0;
  for (let n = 0; n < samples.length; n += 1) {
    hiss = 0.7 * hiss + (chance(seed + n) - 0.5) * 2;
    const note = [220, 262, 330, 392][Math.floor(n / (RATE * 0.5)) % 4] as number;
    const fade = 1 - ((n / (RATE * 0.5)) % 1) * 0.7;
    samples[n] =
      (samples[n] as number) +
      noise * hiss * 0.9 +
      music *
        fade *
        (Math.sin((2 * Math.PI * note * n) / RATE) +
          0.5 * Math.sin((4 * Math.PI * note * n) / RATE));
  }
  return { name: kind.name, rate: RATE, samples, script, said, added };
}

const clear = {
  skip: 0.08,
  add: 0.06,
  noiseDb: null,
  musicDb: null,
  beeps: true,
  childrenDb: null,
  hall: false,
  reworded: 0,
} satisfies Partial<SpeechKind>;

/**
 * Clear speech of several voices; a hall, music, children and much that is added; and the hard mix:
 * reworded, in noise and over music.
 */
export const speechKinds: SpeechKind[] = [
  { name: 'clear, voice 1', voice: 'en-us+f2', seed: 1, sentences: 40, ...clear },
  { name: 'clear, voice 2', voice: 'en-gb-scotland+m3', seed: 2, sentences: 40, ...clear },
  { name: 'clear, voice 3', voice: 'en-gb-x-rp+f4', seed: 3, sentences: 40, ...clear },
  { name: 'clear, nothing added', voice: 'en-us+m7', seed: 4, sentences: 60, ...clear, add: 0 },
  {
    name: 'noise at 10 dB',
    voice: 'en-gb-x-gbclan+f3',
    seed: 5,
    sentences: 40,
    ...clear,
    noiseDb: 10,
  },
  { name: 'a hall', voice: 'en-us+f4', seed: 11, sentences: 30, ...clear, hall: true },
  { name: 'music at 12 dB', voice: 'en-gb+m4', seed: 12, sentences: 30, ...clear, musicDb: 12 },
  { name: 'children', voice: 'en-us+f1', seed: 13, sentences: 30, ...clear, childrenDb: 8 },
  { name: 'a third added', voice: 'en-gb-x-rp+f5', seed: 14, sentences: 30, ...clear, add: 0.55 },
  {
    ...{ name: 'a hall, children, a third added', voice: 'en-us+m6', seed: 15, sentences: 30 },
    ...{ ...clear, add: 0.55, childrenDb: 10, hall: true },
  },
  ...['en-us+m2', 'en-gb-x-rp+f3', 'en-gb-scotland+m1'].map((voice, i) => ({
    name: `hard ${i + 1}: noise at 5 dB, music, reworded`,
    voice,
    seed: 6 + i,
    sentences: 40,
    ...clear,
    noiseDb: 5,
    musicDb: 14,
    reworded: 0.3,
  })),
];
