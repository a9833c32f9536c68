import { describe, expect, it } from 'vitest';
import { assemble, type TakeFacts } from '../assembly/index.ts';
import {
  makeBlock,
  makeLesson,
  type Block,
  type BlockKind,
  type BlockOf,
  type Lesson,
} from '../lesson/index.ts';
import { scheduleLesson } from '../schedule/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { analysisWith } from '../testing/watched.ts';
import { checkLesson, findingWords, type Finding } from './index.ts';
import { watchedBlocks } from './watched-blocks.ts';

// Rules about the cut, the plan and its words, each at its border. A take has 30 frames a second.

const take = (frames: number): TakeFacts => ({ id: 'take', frames, marked: null });
const made = <K extends BlockKind>(kind: K, more: Partial<BlockOf<K>> = {}) =>
  ({
    ...makeBlock(kind, counter()),
    id: 'b',
    footage: { takeId: 'take', startsAtMs: 0 },
    ...more,
  }) as BlockOf<K>;
const talk = (more: Partial<BlockOf<'talk'>> = {}) =>
  made('talk', { fixedMs: 10_000, script: '', ...more });
const lessonOf = (blocks: Block[], more: Partial<Lesson> = {}): Lesson => ({
  ...makeLesson('A', counter()),
  targets: { video: null, session: null },
  sections: [{ id: 's', title: 'Part', blocks }],
  ...more,
});
const check = (lesson: Lesson, frames = 9_000): Finding[] => {
  const takes = new Map([['take', take(frames)]]);
  return checkLesson({
    lesson,
    cut: assemble(lesson, takes),
    takes,
    makeId: counter(),
    measure: (text, size) => [...text].length * size * 0.55,
  });
};
const by = (rule: string, lesson: Lesson, frames?: number) =>
  check(lesson, frames).filter((finding) => finding.rule === rule);
/** With the school that counts the last rest. */
const counted = (blocks: Block[]): Lesson => {
  const lesson = lessonOf(blocks);
  return { ...lesson, settings: { ...lesson.settings, lastRest: 'counted' } };
};
/** The lesson after the one finding's remedy. */
function remedied(finding: Finding | undefined, lesson: Lesson): Block[] {
  const draft = structuredClone(lesson);
  finding?.remedy?.change(draft);
  return draft.sections[0]?.blocks ?? [];
}

describe('footage under a block', () => {
  const still = (fixedMs: number, startsAtMs: number) =>
    by('still', lessonOf([talk({ fixedMs, footage: { takeId: 'take', startsAtMs } })]), 300);

  it('may stand still for half a second at the end', () => {
    expect(still(10_500, 0)).toEqual([]);
    expect(still(10_501, 0)).toMatchObject([
      { blockId: 'b', key: 'still b', atMs: 10_000, figures: { stillMs: 501 } },
    ]);
  });

  it('is as long as what is left of the take', () => {
    expect(still(9_500, 1_000)).toEqual([]);
    expect(still(10_000, 1_000)).toMatchObject([{ atMs: 9_000, figures: { stillMs: 1_000 } }]);
  });

  it('stands still all together as long as its pieces do, from the first moment on', () => {
    const cutOut = talk({
      fixedMs: 15_000,
      edits: [{ id: 'o', kind: 'leave-out', fromMs: 11_000, toMs: 12_000 }],
    });
    expect(by('still', lessonOf([cutOut]), 300)).toMatchObject([
      { atMs: 10_000, figures: { stillMs: expect.closeTo(4_000, -2) } },
    ]);
  });

  it('may have ended before the block begins', () => {
    expect(still(10_000, 15_000)).toMatchObject([{ atMs: 0, figures: { stillMs: 10_000 } }]);
    expect(by('still', lessonOf([made('card', { lines: ['Rope'] })]), 300)).toEqual([]);
  });

  it('stands still where a picture is to', () => {
    const frozen = talk({
      edits: [
        { id: 'f', kind: 'freeze', atMs: 10_000, lengthMs: 4_000, point: null, text: '' },
        { id: 'g', kind: 'freeze', atMs: 2_000, lengthMs: 4_000, point: null, text: '' },
      ],
    });
    expect(by('still', lessonOf([frozen]), 300)).toEqual([]);
  });

  it('lasts longer at half speed', () => {
    const slow = talk({
      fixedMs: 10_000,
      edits: [
        { id: 'a', kind: 'again', fromMs: 6_000, toMs: 8_000, speed: 50, times: 1, sound: 'off' },
      ],
    });
    expect(by('still', lessonOf([slow]), 300)).toEqual([]);
  });
});

describe('a cue on screen', () => {
  const cue = (toMs: number, ageFrom: number, text = 'Soft knees now') =>
    by(
      'short-cue',
      lessonOf(
        [
          talk({
            edits: [{ id: 'c', kind: 'cue', fromMs: 1_000, toMs, text, moment: 'action' }],
          }),
        ],
        { audience: { ageFrom, ageTo: 60 } },
      ),
    );

  it('stays for half a second and its words at the reading pace of the youngest', () => {
    // Age 9 reads 120 words a minute: three words take 1.5 s.
    expect(cue(3_000, 9)).toEqual([]);
    expect(cue(2_999, 9)).toMatchObject([
      {
        blockId: 'b',
        key: 'short cue b Soft knees now',
        atMs: 1_000,
        figures: {
          text: 'Soft knees now',
          shownMs: 1_999,
          neededMs: 2_000,
          age: 9,
          isTooYoung: 'no',
        },
      },
    ]);
  });

  it('says that whoever is younger than six does not read', () => {
    expect(cue(2_000, 6)[0]?.figures).toMatchObject({ age: 6, isTooYoung: 'no' });
    expect(cue(2_000, 5)[0]?.figures).toMatchObject({ age: 6, isTooYoung: 'yes' });
  });

  it('is told once, however often it comes', () => {
    const again = talk({
      edits: [1_000, 4_000].map((fromMs, i) => ({
        id: `c${i}`,
        kind: 'cue',
        fromMs,
        toMs: fromMs + 200,
        text: 'Up',
        moment: 'action',
      })) as Block['edits'],
    });
    expect(by('short-cue', lessonOf([again]))).toMatchObject([{ atMs: 1_000 }]);
  });

  it('is not asked of a command, which is called out', () => {
    const called = made('called', { gapMinMs: 500, gapMaxMs: 500, leadInMs: 0, demo: null });
    expect(by('short-cue', lessonOf([called]))).toEqual([]);
  });
});

describe('a cue by hand', () => {
  // Work 0 to 5, rest to 10, work to 15 s, rest to 20 s.
  const turns = (fromMs: number, toMs: number, text: string) =>
    counted([
      made('intervals', {
        leadInMs: 0,
        workMs: 5_000,
        restMs: 5_000,
        rounds: 1,
        sets: 1,
        demo: null,
        exercises: (['Squat', 'Lunge'] as const).map((title) => ({
          id: title,
          title,
          movement: 'squat' as const,
          sides: 'both' as const,
        })),
        edits: [
          { id: 'other', kind: 'cue', fromMs: 0, toMs: 3_000, text: 'Chin up', moment: 'ready' },
          { id: 'c', kind: 'cue', fromMs, toMs, text, moment: 'action' },
        ],
      }),
    ]);
  const moved = (fromMs: number, toMs: number, text = 'Heels down') => {
    const lesson = turns(fromMs, toMs, text);
    const [finding] = by('cue-move', lesson);
    return {
      figures: finding?.figures,
      cues: remedied(finding, lesson)[0]?.edits.map(
        (edit) => 'fromMs' in edit && [edit.id, edit.fromMs, edit.toMs],
      ),
    };
  };

  it('goes from a rest to the work that comes next, as long as it was', () => {
    expect(moved(5_500, 9_500)).toMatchObject({
      figures: { what: 'movement', name: '', strangeMs: 4_000 },
      cues: [
        ['other', 0, 3_000],
        ['c', 10_000, 14_000],
      ],
    });
  });

  it('goes to the last work where none comes, and no longer than that lasts', () => {
    expect(moved(15_000, 19_000).cues?.[1]).toEqual(['c', 10_000, 14_000]);
    expect(moved(6_000, 14_900, 'Squat: sit back').cues?.[1]).toEqual(['c', 0, 5_000]);
  });

  it('is told from half of it in a rest on', () => {
    expect(moved(4_000, 6_001).figures).toEqual({
      block: expect.any(String),
      text: 'Heels down',
      what: 'movement',
      name: '',
      strangeMs: 1_001,
    });
    expect(moved(3_999, 6_000 - 2).figures).toBeUndefined();
  });
});

describe('what is pointed at', () => {
  const pointed = (x: number, y: number, text = '') =>
    by(
      'safe',
      lessonOf([
        talk({
          edits: [{ id: 'f', kind: 'freeze', atMs: 2_000, lengthMs: 1_000, point: { x, y }, text }],
        }),
      ]),
    );

  it('lies within nine tenths of the picture each way (EBU R 95, action safe)', () => {
    expect(pointed(50, 500)).toEqual([]);
    expect(pointed(950, 950)).toEqual([]);
    // 49 of 1000 is 62.72 of 1280: 1.28 of 720 lines outside, told as 1 %.
    expect(pointed(49, 500)).toMatchObject([
      { blockId: 'b', atMs: 2_000, figures: { text: 'none', over: 1 } },
    ]);
    // Right: 1280 - 1216 = 64 of 720; below: 720 - 684 = 36.
    expect(pointed(1_000, 500, 'Wrist')[0]?.figures).toMatchObject({ text: 'Wrist', over: 9 });
    expect(pointed(500, 1_000)[0]?.figures).toMatchObject({ over: 5 });
    expect(pointed(500, 0)[0]?.figures).toMatchObject({ over: 5 });
  });

  it('is told of where it lies worst', () => {
    const twice = talk({
      edits: [49, 0].map((x, i) => ({
        id: `f${i}`,
        kind: 'freeze',
        atMs: 2_000 + i * 3_000,
        lengthMs: 1_000,
        point: { x, y: 500 },
        text: '',
      })) as Block['edits'],
    });
    expect(by('safe', lessonOf([twice]))).toMatchObject([{ figures: { over: 9 }, atMs: 6_000 }]);
  });

  it('is told of the block it is in', () => {
    const plain = { ...talk(), id: 'a' };
    const [finding] = by(
      'safe',
      lessonOf([
        plain,
        talk({
          edits: [
            { id: 'f', kind: 'freeze', atMs: 0, lengthMs: 500, point: { x: 0, y: 0 }, text: '' },
          ],
        }),
      ]),
    );
    expect(finding).toMatchObject({ blockId: 'b', key: 'safe b', atMs: 10_000 });
  });
});

describe('a hand named by its side', () => {
  const cue = {
    ...{ id: 'k', text: 'Left hand up', moment: 'action' as const, bodyPart: '' },
    ...{ reason: '', right: '', wrong: '', anchor: null, entryId: null },
  };

  it('is told with the words for either hand, which one click puts in its place', () => {
    const lesson = lessonOf([talk({ script: 'Now the right hand throws.', cues: [cue] })]);
    const [script, ofCue] = by('hand', lesson);
    expect(script).toMatchObject({
      key: 'hand b script right hand',
      figures: { words: 'right hand', where: 'script', cue: '', instead: 'throwing hand' },
    });
    expect(remedied(script, lesson)[0]?.script).toBe('Now the throwing hand throws.');
    expect(ofCue).toMatchObject({
      key: 'hand b cue “Left hand up” Left hand',
      figures: { words: 'Left hand', where: 'cue', cue: 'Left hand up', instead: 'other hand' },
    });
    expect(remedied(ofCue, lesson)[0]?.cues.map(({ text }) => text)).toEqual(['other hand up']);
  });

  it('has no sure words for a foot, and changes no other cue', () => {
    const lesson = lessonOf([
      talk({
        cues: [
          { ...cue, text: 'Left foot ahead' },
          { ...cue, id: 'l', text: 'Look ahead' },
        ],
      }),
    ]);
    expect(by('hand', lesson)).toMatchObject([{ remedy: null, figures: { instead: '' } }]);
    const both = lessonOf([talk({ cues: [cue, { ...cue, id: 'l', text: 'Look ahead' }] })]);
    expect(remedied(by('hand', both)[0], both)[0]?.cues.map(({ text }) => text)).toEqual([
      'other hand up',
      'Look ahead',
    ]);
  });
});

describe('the plan', () => {
  it('meets its lengths, give or take what is allowed', () => {
    const aimed = (ms: number) =>
      by(
        'length',
        lessonOf([talk()], {
          targets: { video: { ms, toleranceMs: 5_000 }, session: null },
        }),
      );
    expect(aimed(15_000)).toEqual([]);
    expect(aimed(5_000)).toEqual([]);
    expect(aimed(15_001)).toMatchObject([
      {
        blockId: null,
        key: 'length video',
        figures: {
          what: 'video',
          lastsMs: 10_000,
          offMs: 5_001,
          way: 'under',
          targetMs: 15_001,
        },
      },
    ]);
    expect(aimed(4_999)).toMatchObject([{ figures: { way: 'over', offMs: 5_001 } }]);
  });

  it('says when to stop where work is hard, and to clear the floor first where room is taken', () => {
    const hard = (effort: number, more: Partial<Block> = {}) =>
      lessonOf([{ ...talk({ effort, cautions: [] }), ...more } as Block]);
    expect(by('health', hard(3))).toEqual([]);
    const [finding] = by('health', hard(4));
    expect(finding).toMatchObject({ blockId: 'b', key: 'health b' });
    expect(remedied(finding, hard(4))[0]?.cautions).toHaveLength(1);
    expect(by('health', hard(4, { extent: ['jump'] }))).toEqual([]);
    expect(by('health', hard(4, { part: 'health' }))).toEqual([]);
    const full = hard(4, { cautions: Array.from({ length: 8 }, () => ' ') });
    expect(remedied(by('health', full)[0], full)[0]?.cautions).toHaveLength(8);
  });

  it('has music with a licence, or goes without it', () => {
    const music = (licence: string): Lesson => {
      const plain = lessonOf([talk()]);
      const { sound } = plain.finish;
      return {
        ...plain,
        finish: {
          ...plain.finish,
          sound: { ...sound, music: { takeId: 'm', licence, underDb: 20 } },
        },
      };
    };
    expect(by('music-licence', lessonOf([talk()]))).toEqual([]);
    expect(by('music-licence', music('CC0'))).toEqual([]);
    const [finding] = by('music-licence', music(' '));
    expect(finding).toMatchObject({ blockId: null, key: 'music licence' });
    const draft = structuredClone(music(' '));
    finding?.remedy?.change(draft);
    expect(draft.finish.sound.music).toBeNull();
  });

  it('shows captions no faster than 180 words a minute', () => {
    // A block of 10 s: 30 words are 180 a minute, 31 are 186.
    const spoken = (words: number) =>
      by(
        'fast-captions',
        lessonOf([talk({ script: `${Array.from({ length: words }, () => 'go').join(' ')}.` })]),
      );
    expect(spoken(30)).toEqual([]);
    expect(spoken(31)).toMatchObject([{ atMs: 0, figures: { wpm: 186, most: 180 } }]);
  });
});

describe('numbers in a script', () => {
  const told = (script: string, block: Block) =>
    by('number', lessonOf([{ ...block, script } as Block])).map(({ figures }) => figures['n']);
  const demo = { times: 3, speed: 'full' as const, onceMs: 2_000 };

  it('may be those of the showing, the parts, the tempo and the ladder', () => {
    const reps = made('reps', {
      demo,
      reps: 10,
      sets: 2,
      sides: 'both',
      tempo: { downMs: 3_000, holdMs: 1_000, upMs: 2_000, topHoldMs: 1_000 },
      parts: { names: ['a', 'b'], timesEach: 4, partMs: 2_000, joinedTimes: 6, joinedMs: 2_000 },
    });
    for (const n of [3, 4, 6, 10, 20]) expect(told(`Do it ${n} times.`, reps)).toEqual([]);
    expect(told('Do it 5 times.', reps)).toHaveLength(1);
    // One repetition: 3 + 1 + 2 + 1 s.
    expect(told('It takes 7 seconds.', reps)).toEqual([]);
    expect(told('It takes 9 seconds.', reps)).toHaveLength(1);
    const intervals = made('intervals', {
      demo: null,
      leadInMs: 0,
      workMs: 40_000,
      restMs: 15_000,
      ladder: [{ workMs: 25_000, restMs: 12_000 }],
      restBetweenRoundsMs: 33_000,
      sets: 2,
      rounds: 3,
    });
    for (const n of [40, 15, 25, 12, 33, 20])
      expect(told(`Go on ${n} seconds.`, intervals)).toEqual([]);
    expect(told('Go on 80 seconds.', intervals)).toHaveLength(1);
    expect(told('We do 2 sets.', intervals)).toEqual([]);
    expect(told('We do 4 sets.', intervals)).toHaveLength(1);
  });
});

describe('words of a finding', () => {
  it('end with who says so, before what to do, and without it where it is plain sense', () => {
    const [safe] = by(
      'safe',
      lessonOf([
        talk({
          edits: [
            { id: 'f', kind: 'freeze', atMs: 0, lengthMs: 500, point: { x: 0, y: 0 }, text: '' },
          ],
        }),
      ]),
    );
    if (!safe) throw new Error('Nothing was found.');
    const words = findingWords(safe);
    expect(words.why).toMatch(/[^.] \(EBU R 95\)\.( \S.*)?$/);
    const plain = findingWords({ ...safe, source: null });
    expect(plain.why).not.toContain('(');
    expect(words.why.replace(' (EBU R 95)', '')).toBe(plain.why);
    expect(plain.why).toBe(plain.why.trim());
  });
});

describe('blocks that were watched', () => {
  const nothing = analysisWith({ durationMs: 8_000 });
  const watched = (blocks: Block[], facts: Partial<TakeFacts>) => {
    const lesson = lessonOf(blocks);
    const takes = new Map([['take', { ...take(300), ...facts }]]);
    return watchedBlocks(lesson, scheduleLesson(lesson), assemble(lesson, takes), takes);
  };
  const pauseAfter = { practiceMs: 60_000, signMs: 5_000, prompt: 'Practise' };

  it('are those whose take is shown and was looked at, without the pause after them', () => {
    const card = { ...made('card', { lines: ['Rope'] }), id: 'c', footage: null };
    const bare = { ...talk(), id: 'n', footage: null };
    const [one, ...more] = watched([talk({ pauseAfter }), card, bare], { watched: nothing });
    expect(more).toEqual([]);
    expect(one?.block.id).toBe('b');
    expect(one?.spans.map(({ kind }) => kind)).toEqual(['talk']);
    expect(one?.bodyMs).toBe(10_000);
    expect(watched([talk()], {})).toEqual([]);
  });
});
