import { isTrusted, spokenSentences, type SpokenSentence } from '../assembly/index.ts';
import { changeBlock, type Block } from '../lesson/index.ts';
import { countWords, wordsPerMinute } from '../schedule/index.ts';
import { rewriteScript } from '../script/index.ts';
import { SURE_SENTENCE, type SoundFault } from '../signal/index.ts';
import { totalLength } from '../time/index.ts';
import { COMMON, type Hit } from './finding.ts';
import type { Rule, ToCheck } from './rule.ts';
import { shownAt, shownStretches, type WatchedBlock } from './watched-blocks.ts';

const MOST_SHOWN = 60;
const short = (text: string) =>
  text.length > MOST_SHOWN ? `${text.slice(0, MOST_SHOWN - 3)}…` : text;

/** The block's sentences as they were heard or set by hand; none where nobody listened. */
function heardIn({ block, alignment, facts }: WatchedBlock): SpokenSentence[] {
  const byHand = block.edits.filter((edit) => edit.kind === 'said');
  return spokenSentences(block.script, alignment, facts, byHand) ?? [];
}

function withoutSentence(draft: Block, text: string): void {
  const at = draft.script.indexOf(text);
  if (at < 0) return;
  const [before, after] = [draft.script.slice(0, at), draft.script.slice(at + text.length)];
  rewriteScript(draft, `${before.trimEnd()} ${after.trimStart()}`.trim());
}

/** What is written is said. */
const scriptSaid = ({ watched }: ToCheck): Hit[] =>
  watched.flatMap((seen) =>
    (seen.facts.said ? heardIn(seen) : [])
      .filter(({ isSaid }) => !isSaid)
      .map(({ text }): Hit => ({
        place: [seen.block.id, text],
        blockId: seen.block.id,
        atMs: seen.placed.startMs,
        figures: { text: short(text) },
        remedy: { change: changeBlock(seen.block.id, (draft) => withoutSentence(draft, text)) },
      })),
  );

/** It is known where each sentence is said. */
const wordsSure = ({ watched }: ToCheck): Hit[] =>
  watched.flatMap((seen): Hit[] => {
    const unsure = (seen.facts.said ? heardIn(seen) : []).filter(
      ({ isSaid, confidence }) => isSaid && confidence !== null && confidence < SURE_SENTENCE,
    );
    const { id } = seen.block;
    if (!unsure[0]) return [];
    const figures = { n: unsure.length, text: short(unsure[0].text) };
    return [{ place: [id], blockId: id, atMs: seen.placed.startMs, figures }];
  });

/** What is said is written. */
const allWritten = ({ watched }: ToCheck): Hit[] =>
  watched.flatMap((seen): Hit[] => {
    const { said } = seen.facts;
    const added = said && isTrusted(said) ? shownStretches(seen, said.added) : [];
    const { id } = seen.block;
    if (!added[0]) return [];
    const figures = { addedMs: totalLength(added) };
    return [{ place: [id], blockId: id, atMs: shownAt(seen, added[0].startMs), figures }];
  });

/**
 * Within a sentence, without the pauses about it, people speak 180 to 240 words a minute (from
 * memory).
 */
const MOST_WPM = 250;
/** A shorter sentence tells nothing about a pace. */
const PACED_WORDS = 5;

/** Sentences are said no faster than can be followed. */
const saidSlowly = ({ watched }: ToCheck): Hit[] =>
  watched.flatMap((seen): Hit[] => {
    const { id } = seen.block;
    const fast = heardIn(seen)
      .flatMap(({ text, startMs, endMs }) => {
        if (startMs === null || endMs === null || countWords(text) < PACED_WORDS) return [];
        const wpm = wordsPerMinute(text, endMs - startMs);
        return wpm > MOST_WPM ? [{ text, startMs, wpm }] : [];
      })
      .sort((a, b) => b.wpm - a.wpm);
    const [worst] = fast;
    if (!worst) return [];
    const figures = {
      text: short(worst.text),
      wpm: Math.round(worst.wpm),
      n: fast.length - 1,
      most: MOST_WPM,
    };
    return [{ place: [id], blockId: id, atMs: shownAt(seen, worst.startMs), figures }];
  });

/** Blocks with a script in whose take somebody speaks, and from when. */
const spokenBlocks = ({ watched }: ToCheck) =>
  watched.flatMap((seen) => {
    const { sound, speech } = seen.facts.watched;
    const [first] = shownStretches(seen, speech);
    return sound && first && seen.block.script.trim() !== ''
      ? [{ seen, id: seen.block.id, sound, atMs: shownAt(seen, first.startMs) }]
      : [];
  });

/** Softer than this, raised to the usual loudness, brings the room's hiss up with it. */
const QUIET_DB = -42;

/** The voice is loud enough. */
const voiceLoud = (all: ToCheck): Hit[] =>
  spokenBlocks(all).flatMap(({ id, sound: { speechDb }, atMs }): Hit[] =>
    speechDb !== null && speechDb < QUIET_DB
      ? [{ place: [id], blockId: id, atMs, figures: { db: Math.round(speechDb) } }]
      : [],
  );

/**
 * Speech nearer to what is heard between it than this is hard to follow (common practice); WCAG
 * 2.2, 1.4.7 asks for 20 dB over music.
 */
const OVER_NOISE_DB = 15;
const OVER_MUSIC_DB = 20;

/** The voice is clear of noise and music. */
const voiceClear = (all: ToCheck): Hit[] =>
  spokenBlocks(all).flatMap(({ id, sound, atMs }): Hit[] => {
    const { speechDb, betweenDb, isMusic } = sound;
    if (speechDb === null || betweenDb === null) return [];
    const over = speechDb - betweenDb;
    const least = isMusic ? OVER_MUSIC_DB : OVER_NOISE_DB;
    if (over >= least) return [];
    const figures = { over: Math.round(over), under: isMusic ? 'music' : 'noise', least };
    const source = isMusic ? 'WCAG 2.2, 1.4.7' : COMMON;
    return [{ place: [id], blockId: id, atMs, figures, source }];
  });

/** The sound is free of a fault that would be heard for so long. */
const soundWithout =
  (fault: SoundFault, leastMs: number) =>
  (all: ToCheck): Hit[] =>
    spokenBlocks(all).flatMap(({ seen, id, sound }): Hit[] => {
      const faults = sound.faults.filter((one) => one.fault === fault);
      const shown = shownStretches(seen, faults);
      const shownMs = totalLength(shown);
      if (shownMs < leastMs) return [];
      const atMs = shownAt(seen, shown[0]?.startMs ?? 0);
      return [{ place: [id], blockId: id, atMs, figures: { shownMs } }];
    });

const HEAR = 'cannot hear it or read along';
export const heardRules: readonly Rule[] = [
  {
    id: 'left-out',
    harm: HEAR,
    bench: 'script',
    source: null,
    seenAt: ['caption'],
    run: scriptSaid,
  },
  {
    id: 'words-unsure',
    harm: HEAR,
    bench: 'assemble',
    source: null,
    seenAt: ['caption'],
    run: wordsSure,
  },
  {
    id: 'added',
    harm: HEAR,
    bench: 'script',
    source: 'WCAG 2.2, 1.2.2',
    seenAt: ['caption'],
    run: allWritten,
  },
  {
    id: 'fast-words',
    harm: HEAR,
    bench: 'film',
    source: COMMON,
    seenAt: ['caption'],
    run: saidSlowly,
  },
  { id: 'quiet', harm: HEAR, bench: 'film', source: COMMON, run: voiceLoud },
  { id: 'noise', harm: HEAR, bench: 'assemble', source: COMMON, run: voiceClear },
  { id: 'wind', harm: HEAR, bench: 'film', source: COMMON, run: soundWithout('wind', 1_000) },
  {
    id: 'overloaded',
    harm: HEAR,
    bench: 'film',
    source: null,
    run: soundWithout('overloaded', 300),
  },
];
