import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  blocksOf,
  makeBlock,
  makeCue,
  makeLesson,
  type Block,
  type BlockKind,
  type BlockOf,
  type Cue,
  type IntervalsBlock,
  type Lesson,
  type RepsBlock,
} from '../lesson/index.ts';
import { scheduleLesson } from '../schedule/index.ts';
import { sentencesOf } from '../script/index.ts';
import { arbitraryLesson, counter } from '../testing/arbitrary.ts';
import { firstFrameFrom } from '../time/index.ts';
import { captionsFor, assemble, slots, takeFrameAt, type Assembly } from './index.ts';

function cutOf(blocks: Block[], frames: Record<string, number> = {}): Assembly {
  const lesson = { ...makeLesson('A', counter()), sections: [{ id: 's', title: 'Part', blocks }] };
  return assemble(
    lesson,
    new Map(Object.entries(frames).map(([id, n]) => [id, { id, frames: n, marked: null }])),
  );
}

const reps = (figures: Partial<RepsBlock>): RepsBlock => ({
  ...(makeBlock('reps', counter()) as RepsBlock),
  ...figures,
});
const work = (figures: Partial<IntervalsBlock>): IntervalsBlock => ({
  ...(makeBlock('intervals', counter()) as IntervalsBlock),
  ...figures,
});
const cue = (id: string, moment: Cue['moment']) => makeCue(id, () => id, moment);
const block = <K extends BlockKind>(kind: K, figures: Partial<BlockOf<K>>) =>
  ({ ...makeBlock(kind, counter()), ...figures }) as Block;

describe('any first cut', () => {
  it('tiles the video with segments and blocks, and keeps overlays sorted, apart and inside', () => {
    fc.assert(
      fc.property(arbitraryLesson, (lesson) => {
        const cut = assemble(lesson, new Map());
        expect(cut.durationMs).toBe(scheduleLesson(lesson).videoMs);
        for (const list of [cut.segments, cut.blocks]) {
          let at = 0;
          for (const part of list) {
            expect(part.startMs).toBe(at);
            at = part.endMs;
          }
          expect(at).toBe(cut.durationMs);
        }
        for (const list of [...slots.map((slot) => cut.lanes[slot]), cut.captions, cut.pauses]) {
          let at = 0;
          for (const item of list) {
            expect(item.startMs).toBeGreaterThanOrEqual(at);
            expect(item.endMs).toBeGreaterThan(item.startMs);
            at = item.endMs;
          }
          expect(at).toBeLessThanOrEqual(cut.durationMs);
        }
        const practice = blocksOf(lesson).filter((block) => block.pauseAfter).length;
        const rests = scheduleLesson(lesson).blocks.flatMap(({ spans }) =>
          spans.filter(({ kind }) => kind === 'ready'),
        );
        expect(cut.pauses.filter(({ isRest }) => !isRest)).toHaveLength(practice);
        expect(cut.pauses.filter(({ isRest }) => isRest)).toHaveLength(rests.length);
      }),
    );
  });
});

describe('a cut as a whole', () => {
  const talk = (more: Partial<BlockOf<'talk'>> = {}) => block('talk', { fixedMs: 5_000, ...more });
  const whole = (sections: Lesson['sections'], more: Partial<Lesson> = {}) =>
    assemble({ ...makeLesson('A', counter()), sections, ...more }, new Map());

  it('has a chapter for each section that lasts', () => {
    const empty = { id: 'e', title: 'Nothing', blocks: [] };
    const cut = whole([
      { id: 'a', title: 'Warm-up', blocks: [talk(), talk()] },
      empty,
      { id: 'b', title: 'Skill', blocks: [talk()] },
    ]);
    expect(cut.chapters).toEqual([
      { title: 'Warm-up', startMs: 0, endMs: 10_000 },
      { title: 'Skill', startMs: 10_000, endMs: 15_000 },
    ]);
    expect(whole([empty])).toMatchObject({ durationMs: 0, chapters: [], sentences: [] });
    expect(cut).toMatchObject({ shape: 'wide', words: { language: 'en', other: null } });
  });

  it('has the second language where both are to be read, without words not yet said in it', () => {
    const lesson = makeLesson('A', counter());
    const second = {
      language: 'de',
      texts: [
        { text: 'Jump', other: 'Springen' },
        { text: 'Rest', other: ' ' },
      ],
    };
    const words = (languages: 'one' | 'both') =>
      whole([], {
        second,
        finish: { ...lesson.finish, look: { ...lesson.finish.look, languages } },
      }).words.other;
    expect(words('both')).toEqual({ language: 'de', texts: { Jump: 'Springen' } });
    expect(words('one')).toBeNull();
  });

  it('has its music where there is such a take, and none otherwise', () => {
    const lesson = makeLesson('A', counter());
    const music = { takeId: 'song', licence: 'Our drum', underDb: 12 };
    const finish = { ...lesson.finish, sound: { ...lesson.finish.sound, music } };
    const withTakes = (takes: string[]) =>
      assemble(
        { ...lesson, finish },
        new Map(takes.map((id) => [id, { id, frames: 300, marked: null }])),
      ).sound.music;
    expect(withTakes(['song'])).toEqual(music);
    expect(withTakes(['other'])).toBeNull();
  });
});

describe('footage', () => {
  const footage = { takeId: 'take', startsAtMs: 2_000 };

  it('starts at its mark and holds the last frame when it runs out', () => {
    const cut = cutOf([work({ footage, leadInMs: 0, rounds: 1, workMs: 10_000 })], { take: 120 });
    const [segment] = cut.segments;
    const { source } = segment ?? {};
    if (!segment || source?.kind !== 'take') throw new Error('There should be footage.');
    expect(takeFrameAt(segment, source, 0)).toBe(60);
    expect(takeFrameAt(segment, source, 30)).toBe(90);
    expect(takeFrameAt(segment, source, 299)).toBe(119);
    expect(cut.durationMs).toBe(10_000);
  });

  it('lets a talk last as long as its footage, unless its length is fixed', () => {
    const talk = { ...makeBlock('talk', counter()), script: 'One two.', footage } as Block;
    expect(firstFrameFrom(cutOf([talk], { take: 360 }).durationMs)).toBe(300);
    expect(
      cutOf([{ ...talk, kind: 'talk', fixedMs: 4_000 } as Block], { take: 360 }).durationMs,
    ).toBe(4_000);
  });

  it('puts a card where the take is missing or the mark lies behind its end', () => {
    for (const frames of [{}, { take: 60 }] as Record<string, number>[]) {
      const cut = cutOf([work({ title: 'Skipping', footage })], frames);
      expect(cut.segments[0]?.source).toMatchObject({
        kind: 'card',
        card: { heading: 'Skipping' },
      });
    }
  });
});

describe('overlays', () => {
  it('counts every repetition once, on its side', () => {
    const cut = cutOf([reps({ reps: 3, sides: 'alternating', startSide: 'left' })]);
    expect(cut.lanes.counter.map(({ rep, side }) => `${rep} ${side}`)).toEqual([
      '1 left',
      '1 right',
      '2 left',
      '2 right',
      '3 left',
      '3 right',
    ]);
  });

  it('says what comes next on every clock', () => {
    const cut = cutOf([work({ rounds: 2, workMs: 20_000, restMs: 10_000, leadInMs: 5_000 })]);
    expect(cut.lanes.clock.map(({ phase, next }) => [phase, next])).toEqual([
      ['lead-in', 'Next: Work and rest'],
      ['work', 'Next: rest 10 s'],
      ['rest', 'Next: Work and rest'],
      ['work', 'Last one'],
    ]);
  });

  it('shows a cue at the moment it belongs to', () => {
    const cues = [cue('before', 'ready'), cue('during', 'action'), cue('end', 'finish')];
    const cut = cutOf([work({ cues, rounds: 1, workMs: 20_000, leadInMs: 5_000 })]);
    expect(cut.lanes.cue.map(({ text, startMs, endMs }) => [text, startMs, endMs])).toEqual([
      ['before', 0, 5_000],
      ['during', 5_000, 20_000],
      ['end', 20_000, 25_000],
    ]);
  });

  it('fills the free time with a cue for all the time, and takes turns where there are more than can be read', () => {
    const all = cutOf([
      work({ cues: [cue('always', 'throughout')], rounds: 1, workMs: 20_000, leadInMs: 0 }),
    ]);
    expect(all.lanes.cue).toMatchObject([{ startMs: 0, endMs: 20_000 }]);
    const cues = ['a', 'b', 'c'].map((id) => cue(id, 'action'));
    const many = cutOf([work({ cues, rounds: 3, workMs: 3_000, restMs: 0, leadInMs: 0 })]);
    expect(many.lanes.cue.map(({ text }) => text)).toEqual(['a', 'b', 'c']);
  });
});

describe('captions', () => {
  it('splits sentences and keeps every word', () => {
    expect(sentencesOf('Stand. “Ready?” Go!\nThrow')).toEqual([
      'Stand.',
      '“Ready?”',
      'Go!',
      'Throw',
    ]);
    fc.assert(
      fc.property(fc.lorem({ maxCount: 60 }), (script) => {
        const captions = captionsFor(script, { startMs: 0, endMs: 600_000 });
        expect(captions.flatMap(({ lines }) => lines.join(' ').split(' ')).join(' ')).toBe(
          script.split(/\s+/).join(' '),
        );
        expect(
          captions.every(
            ({ lines }) => lines.length <= 2 && lines.every((line) => line.length <= 42),
          ),
        ).toBe(true);
        expect(captions.at(-1)?.endMs).toBe(600_000);
      }),
    );
  });

  it('ends with the speech in a timed block and has none without words', () => {
    const cut = cutOf([work({ script: 'Land softly on your toes.', leadInMs: 0 })]);
    expect(cut.captions.at(-1)?.endMs).toBe(3_000);
    expect(captionsFor('', { startMs: 0, endMs: 1_000 })).toEqual([]);
    expect(captionsFor('…', { startMs: 0, endMs: 1_000 })).toHaveLength(1);
  });
});

describe('cues tied to a sentence', () => {
  it('come up when it is spoken; the others fill the time between', () => {
    const script = 'One two three four. Five six seven eight.';
    const spoken = { ...cue('spoken', 'action'), anchor: script.length };
    const cut = cutOf([
      block('talk', { script, fixedMs: 16_000, cues: [cue('free', 'action'), spoken] }),
    ]);
    expect(cut.lanes.cue.map(({ text, startMs, endMs }) => [text, startMs, endMs])).toEqual([
      ['free', 0, 8_000],
      ['spoken', 8_000, 13_000],
      ['free', 13_000, 16_000],
    ]);
    const two = cutOf([
      block('talk', {
        script,
        fixedMs: 16_000,
        cues: [
          { ...spoken, id: 'a', text: 'a' },
          { ...spoken, id: 'b', text: 'b' },
        ],
      }),
    ]);
    expect(two.lanes.cue.map(({ text, startMs }) => [text, startMs])).toEqual([
      ['a', 8_000],
      ['b', 12_000],
    ]);
  });
});

describe('other kinds of block', () => {
  it('keep the answer back until its time, on the card and in the captions', () => {
    const cut = cutOf([
      block('question', {
        question: 'Which foot steps first?',
        answer: 'The other one.',
        askMs: 2_000,
        thinkMs: 5_000,
        answerMs: 2_000,
      }),
    ]);
    expect(
      cut.segments.map(({ startMs, endMs, source }) => [
        startMs,
        endMs,
        source.kind === 'card' && source.card.lines,
      ]),
    ).toEqual([
      [0, 7_000, []],
      [7_000, 9_000, ['The other one.']],
    ]);
    expect(cut.lanes.clock).toMatchObject([
      { phase: 'think', startMs: 2_000, endMs: 7_000, next: 'Next: the answer' },
    ]);
    expect(cut.captions.map(({ startMs, lines }) => [startMs, lines.join(' ')])).toEqual([
      [0, 'Which foot steps first?'],
      [7_000, 'The other one.'],
    ]);
  });

  it('show a question until it is answered, the answer then, and nothing where there is none', () => {
    const cues = (answer: string, footage: Block['footage']) =>
      cutOf(
        [
          block('question', {
            ...{ question: 'Which foot?', askMs: 3_000, thinkMs: 5_000, answerMs: 4_000 },
            ...{ answer, footage },
          }),
        ],
        { take: 600 },
      ).lanes.cue;
    const asked = [
      { text: 'Which foot?', moment: 'question', startMs: 0, endMs: 3_000 },
      { text: 'Which foot?', moment: 'question', startMs: 3_000, endMs: 8_000 },
    ];
    const take = { takeId: 'take', startsAtMs: 0 };
    expect(cues('The left one', take)).toMatchObject([
      ...asked,
      { slot: 'cue', text: 'The left one', moment: 'answer', startMs: 8_000, endMs: 12_000 },
    ]);
    expect(cues(' ', take)).toMatchObject(asked);
    // The card says both itself.
    expect(cues('The left one', null)).toEqual([]);
    expect(cutOf([block('card', { cues: [cue('Look', 'throughout')] })]).lanes.cue).toEqual([]);
  });

  it('show a command while it is to be answered, and never the next one', () => {
    const cut = cutOf([
      block('called', { calls: 6, minEach: 2, gapMinMs: 1_000, gapMaxMs: 2_000, leadInMs: 0 }),
    ]);
    expect(cut.lanes.cue).toHaveLength(6);
    expect(cut.lanes.cue.every(({ moment }) => moment === 'command')).toBe(true);
    expect(cut.lanes.counter.map(({ rep, reps }) => [rep, reps])).toEqual(
      [1, 2, 3, 4, 5, 6].map((n) => [n, 6]),
    );
  });

  it('count tokens down by lap, holds by side, beats by eight', () => {
    const laps = cutOf([block('laps', { laps: 3, lapMs: 4_000, tokens: 3, leadInMs: 0 })]);
    expect(laps.lanes.counter.map(({ note }) => note)).toEqual([
      '3 tokens left',
      '2 tokens left',
      '1 token left',
    ]);
    const holds = cutOf([block('hold', { holds: 1, holdMs: 5_000, leadInMs: 0, sides: 'each' })]);
    expect(holds.lanes.counter.map(({ side }) => side)).toEqual(['right', 'left']);
    const counts = cutOf([block('counts', { countIn: 0, times: 1, bpm: 120 })]);
    expect(counts.lanes.counter).toMatchObject([
      { beats: 8, startMs: 0, endMs: 4_000 },
      { beats: 8, endMs: 8_000 },
    ]);
  });

  it('shows a card as a card even where a take lies', () => {
    const cut = cutOf(
      [
        block('card', {
          title: 'Kit',
          lines: ['A rope'],
          fixedMs: 4_000,
          footage: { takeId: 'take', startsAtMs: 0 },
        }),
      ],
      { take: 900 },
    );
    expect(cut.segments).toMatchObject([
      { source: { kind: 'card', card: { heading: 'Kit', lines: ['A rope'] } } },
    ]);
  });
});
