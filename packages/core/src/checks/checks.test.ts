import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assemble, type TakeFacts } from '../assembly/index.ts';
import {
  makeBlock,
  makeCue,
  makeKit,
  makeLesson,
  overlaySlots,
  usualFinish,
  type Block,
  type BlockKind,
  type BlockOf,
  type Lesson,
} from '../lesson/index.ts';
import { REFERENCE, sceneAt } from '../overlay/index.ts';
import { arbitraryLesson, counter } from '../testing/arbitrary.ts';
import {
  byCause,
  causeWords,
  checkLesson,
  findingWords,
  harms,
  rules,
  whereSeen,
  type Finding,
} from './index.ts';
import { isTeacherWord } from '../words/index.ts';

/** A finding with its words. */
type Told = ReturnType<typeof told>;
const told = (finding: Finding) => {
  const { say, why, remedy: label } = findingWords(finding);
  return { ...finding, say, why, remedy: finding.remedy && { ...finding.remedy, label } };
};

const takes = new Map<string, TakeFacts>([['take', { id: 'take', frames: 300, marked: null }]]);
const made = <K extends BlockKind>(kind: K, more: Partial<BlockOf<K>>): Block =>
  ({ ...makeBlock(kind, counter()), footage: { takeId: 'take', startsAtMs: 0 }, ...more }) as Block;
const lessonOf = (...blocks: Block[]): Lesson => {
  const lesson = makeLesson('A', counter());
  return {
    ...lesson,
    targets: { video: null, session: null },
    settings: { ...lesson.settings, parts: [] },
    finish: {
      ...lesson.finish,
      look: { ...lesson.finish.look, boards: [], profile: 'television at 3 m' },
    },
    sections: [{ id: 's', title: 'Part', blocks }],
  };
};
const check = (lesson: Lesson): Told[] =>
  checkLesson({
    lesson,
    cut: assemble(lesson, takes),
    takes,
    makeId: counter(),
    measure,
  }).map(told);
const about = (lesson: Lesson, key: string) =>
  check(lesson).filter((finding) => finding.key.startsWith(key));
/** Letters as wide as the shipped font's are on average. */
const measure = (text: string, size: number) => [...text].length * size * 0.55;
const talk = (more: Partial<BlockOf<'talk'>> = {}) =>
  made('talk', { id: 't', title: 'Talk', fixedMs: 8_000, script: 'Hello.', ...more });

const room = { widthCm: 200, depthCm: 200, heightCm: 250 };

const byTurns = (edits: Block['edits']) =>
  made('intervals', {
    id: 'i',
    title: 'Legs',
    leadInMs: 0,
    workMs: 5_000,
    restMs: 5_000,
    rounds: 1,
    demo: null,
    cautions: ['Stop if it hurts.'],
    exercises: (['Squat', 'Lunge'] as const).map((title) => ({
      id: title,
      title,
      movement: 'squat',
      sides: 'both',
    })),
    edits,
  });
const cueAt = (fromMs: number, toMs: number, text: string): Block['edits'] => [
  { id: 'x', kind: 'cue', fromMs, toMs, text, moment: 'action' },
];
const twoSets = (...atMs: number[]) =>
  made('reps', {
    id: 'r',
    title: 'Squat',
    leadInMs: 0,
    reps: 2,
    sets: 2,
    sides: 'both',
    restBetweenSetsMs: 10_000,
    demo: null,
    parts: null,
    tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
    edits: [
      { id: 'x', kind: 'taps', taps: atMs.map((at) => ({ atMs: at, side: null, missed: false })) },
    ],
  });

/** Does what a remedy says and looks again. */
function remedied(lesson: Lesson, key: string): Told[] {
  const [finding] = about(lesson, key);
  const draft = structuredClone(lesson);
  finding?.remedy?.change(draft);
  return about(draft, key);
}

describe('the check', () => {
  it('has words for each of its rules, and names each once', () => {
    expect(new Set(rules.map(({ id }) => id)).size).toBe(rules.length);
    for (const { id } of rules)
      expect([id, isTeacherWord(`check.${id}.say`), isTeacherWord(`check.${id}.why`)]).toEqual([
        id,
        true,
        true,
      ]);
  });

  it('finds nothing in a short talk that is as it should be', () => {
    expect(check(lessonOf(talk()))).toEqual([]);
  });

  it.each([
    [
      'kit t',
      lessonOf(talk({ kit: [makeKit('Rope', () => 'k')], script: 'Go.' })),
      'Rope is needed in “Talk” before it is named.',
      true,
    ],
    ['space t', lessonOf(talk({ extent: ['jump'] })), 'nothing says to clear the floor', true],
    ['health t', lessonOf(talk({ effort: 5 })), 'nothing says when to stop', true],
    [
      'effort 0',
      lessonOf(talk({ effort: 5, cautions: ['Stop if it hurts.'] })),
      'No warm-up before the first hard work',
      false,
    ],
    [
      'sides',
      lessonOf(
        made('intervals', {
          id: 'i',
          title: 'Lunge',
          leadInMs: 0,
          workMs: 5_000,
          restMs: 0,
          rounds: 1,
          exercises: [{ id: 'e', title: 'Lunge', movement: 'squat', sides: 'left' }],
        }),
      ),
      'the left side does 5 s more',
      false,
    ],
    [
      'pause',
      lessonOf(talk({ pauseAfter: { practiceMs: 60_000, signMs: 5_000, prompt: ' ' } })),
      'does not say what to practise for 1 min',
      false,
    ],
    [
      'length video',
      {
        ...lessonOf(talk()),
        targets: { video: { ms: 60_000, toleranceMs: 5_000 }, session: null },
      },
      'The video lasts 8 s: 52 s under its 1 min.',
      false,
    ],
    [
      'hand',
      lessonOf(talk({ cues: [makeCue('Right hand high', () => 'c', 'throughout')] })),
      '“Right hand” in the cue “Right hand high” of “Talk” is wrong for the left-handed.',
      true,
    ],
    [
      'words',
      lessonOf(
        talk({
          fixedMs: 2_000,
          script: 'This is far more than anybody can say in two seconds on any day of the week.',
        }),
      ),
      'and 2 s for them',
      false,
    ],
    [
      'name',
      lessonOf(talk({ shownBy: 'Wren Alder' })),
      'looks like a full name: “Wren Alder”',
      true,
    ],
    [
      'named',
      lessonOf(talk({ script: 'Watch how Wren Alder does it. Then you.' })),
      '“Wren Alder” in the words of “Talk” looks like a full name.',
      false,
    ],
    ['footage', lessonOf(talk(), talk({ id: 'u', footage: null })), 'has no take yet', false],
    [
      'still',
      lessonOf(talk({ fixedMs: 20_000 })),
      'runs on for 10 s after its footage has ended',
      false,
    ],
    [
      'short cue',
      lessonOf(
        talk({
          fixedMs: 3_000,
          script: '',
          cues: [
            makeCue(
              'Stand side-on and keep the disc level until you let go of it at last',
              () => 'c',
              'throughout',
            ),
          ],
        }),
      ),
      'is on screen for 3 s',
      false,
    ],
    ['captions', lessonOf(talk({ script: '' })), 'is spoken and has no captions', false],
    [
      'number i',
      lessonOf(
        made('intervals', {
          id: 'i',
          title: 'Skip',
          leadInMs: 0,
          workMs: 20_000,
          rounds: 3,
          script: 'Skip for thirty seconds. Three rounds.',
        }),
      ),
      '“thirty seconds” is said in “Skip”, and 20 seconds planned.',
      true,
    ],
    [
      'cue move',
      lessonOf(byTurns(cueAt(5_500, 9_500, 'Heels down'))),
      '“Heels down” in “Legs” is for the movement, and stands in a rest for 4 s.',
      true,
    ],
    [
      'cue move',
      lessonOf(byTurns(cueAt(500, 4_500, 'Lunge: long step'))),
      '“Lunge: long step” in “Legs” names “Lunge”, and stands while something else is done for 4 s.',
      true,
    ],
    [
      'count move',
      lessonOf(twoSets(2_000, 4_000, 9_000, 16_000)),
      'The counter of “Squat” goes on once while the plan has a rest.',
      false,
    ],
    [
      'fast captions',
      lessonOf(
        talk({
          fixedMs: 4_000,
          script:
            'One small step to the left and one small step to the right, then turn all the ' +
            'way round and jump as high as you can.',
        }),
      ),
      'words a minute; 180 is the most',
      false,
    ],
    [
      'safe',
      lessonOf(
        talk({
          edits: [
            {
              id: 'p',
              kind: 'freeze',
              atMs: 2_000,
              lengthMs: 3_000,
              point: { x: 980, y: 500 },
              text: 'Elbow',
            },
          ],
        }),
      ),
      'The arrow “Elbow” in “Talk” points 5 % of the picture’s height outside the safe area.',
      false,
    ],
    [
      'dropped',
      lessonOf(talk({ edits: [{ id: 'x', kind: 'mirror', fromMs: 60_000, toMs: 61_000 }] })),
      'could not be kept',
      true,
    ],
  ] as const)(
    '%s: says what, where and how much, and its remedy helps',
    (key, lesson, say, isRemedied) => {
      const [finding, ...more] = about(lesson, key);
      expect(finding?.say).toContain(say);
      expect(more).toEqual([]);
      expect(finding?.remedy !== null).toBe(isRemedied);
      if (isRemedied) expect(remedied(lesson, key)).toEqual([]);
    },
  );

  const seenOn = (profile: Lesson['finish']['look']['profile'], block = talk()): Lesson => {
    const lesson = lessonOf(block);
    return {
      ...lesson,
      finish: {
        ...lesson.finish,
        look: { ...structuredClone(usualFinish.look), boards: [], profile },
      },
    };
  };

  it('passes the look every lesson begins with on the screen it is made for', () => {
    expect(about(seenOn(usualFinish.look.profile), 'small words')).toEqual([]);
    expect(about(seenOn('television at 3 m'), 'small words')).toEqual([]);
  });

  it('says what is to be done where words are too small, also where no size is enough', () => {
    const laptop = seenOn('laptop at 2 m');
    for (const slot of overlaySlots) laptop.finish.look.slots[slot] = { size: 80, place: null };
    expect(about(laptop, 'small words')[0]).toMatchObject({
      say: 'Cues, counts and cautions look 13 minutes of arc high on a laptop at 2 m; 16 is the least.',
      remedy: { label: 'Make them 100 %' },
    });
    expect(remedied(laptop, 'small words')).toEqual([]);
    // On a picture 65 mm high letters of 52/720 x 0.67 of it are 3.15 mm: at 1 m 10.8 minutes of
    // arc (arithmetic); 130 % of that are seen as 16 from 878 mm.
    expect(about(seenOn('phone at 1 m'), 'small words')[0]).toMatchObject({
      say: expect.stringMatching(
        /look 11 minutes of arc high on a phone at 1 m.*Even at 130 % they are read from 85 cm at most/,
      ),
      remedy: null,
    });
  });

  it('tells of words too many to be written large enough, and leaves short ones alone', () => {
    const cued = (text: string) =>
      talk({ cues: [makeCue(text, () => 'c', 'throughout')], cautions: [] });
    expect(about(seenOn('laptop at 2 m', cued('Land softly')), 'long words')).toEqual([]);
    expect(
      about(
        seenOn('laptop at 2 m', cued('Bend your knees and keep your elbows close to you')),
        'long words',
      ).map(({ say, bench }) => [say.slice(0, 90), bench]),
    ).toEqual([
      [
        '“Bend your knees and keep your elbows close to you” is too long for its place: it looks 11',
        'script',
      ],
    ]);
    const caution = talk({
      cautions: [
        'Stop at once if it hurts anywhere, sit down, drink some water and tell a grown-up about it.',
      ],
    });
    expect(about(seenOn('laptop at 2 m', caution), 'long words').map(({ bench }) => bench)).toEqual(
      ['plan'],
    );
  });

  it('leaves cues and counts alone that stand with their own movement', () => {
    expect(about(lessonOf(byTurns(cueAt(10_500, 14_500, 'Lunge: long step'))), 'cue move')).toEqual(
      [],
    );
    expect(about(lessonOf(byTurns(cueAt(1_000, 4_000, 'Heels down'))), 'cue move')).toEqual([]);
    expect(about(lessonOf(twoSets(2_300, 4_900, 16_500, 18_600)), 'count move')).toEqual([]);
    expect(
      about(
        lessonOf(
          made('intervals', {
            id: 'i',
            leadInMs: 0,
            workMs: 20_000,
            restMs: 10_000,
            script:
              'Skip for twenty seconds, rest for 10 seconds. Once more. That was the second time. Five times a week.',
          }),
        ),
        'number',
      ),
    ).toEqual([]);
  });

  it('is quiet where a block of the lesson speaks of space, health or kit', () => {
    const space = made('talk', {
      id: 'a',
      part: 'space',
      fixedMs: 8_000,
      script: 'Clear the floor.',
    });
    expect(about(lessonOf(space, talk({ extent: ['jump'] })), 'space')).toEqual([]);
    const kit = made('talk', { id: 'a', part: 'kit', fixedMs: 8_000, script: 'You need a rope.' });
    expect(about(lessonOf(kit, talk({ kit: [makeKit('Rope', () => 'k')] })), 'kit')).toEqual([]);
  });

  it('warns of words too small for a phone at a metre, and of music without a licence', () => {
    const plain = lessonOf(talk());
    const phone: Lesson = {
      ...plain,
      finish: {
        look: { ...plain.finish.look, profile: 'phone at 1 m' },
        sound: { ...plain.finish.sound, music: { takeId: 'm', licence: '', underDb: 20 } },
      },
    };
    expect(about(phone, 'small words')[0]?.say).toContain('16 is the least');
    expect(remedied(phone, 'music')).toEqual([]);
    expect(about(phone, 'music')).toHaveLength(1);
  });

  it('takes neither what the lesson is about nor the beginning of a sentence for a name', () => {
    const plain = lessonOf(
      talk({
        script:
          'Hello. Stand Tall now. Today from Juniper Quay: the Flying Disc, with Kite. ' +
          'Greetings from the Quayside Rope Movement Club. See you 2 Kite Fliers.',
        kit: [makeKit('flying disc', () => 'k')],
      }),
    );
    const inSeries = { ...plain, series: { ...plain.series, name: 'Juniper Quay autumn' } };
    expect(about(inSeries, 'named').map(({ say }) => say)).toEqual([
      '“Kite Fliers” in the words of “Talk” looks like a full name.',
    ]);
    expect(
      about({ ...inSeries, settings: { ...inSeries.settings, language: 'de' } }, 'named'),
    ).toEqual([]);
  });

  it('keeps what is ignored, with the word for it', () => {
    const lesson = {
      ...lessonOf(talk({ shownBy: 'Wren Alder' })),
      waived: [{ key: 'name t', word: 'The club’s own trainer' }],
    };
    expect(about(lesson, 'name')[0]?.waived).toBe('The club’s own trainer');
  });

  it('asks for takes only once something is filmed', () => {
    const unfilmed = (id: string) => talk({ id, footage: null });
    expect(about(lessonOf(unfilmed('a'), unfilmed('b')), 'footage')).toEqual([]);
    expect(about(lessonOf(unfilmed('a'), talk(), unfilmed('b')), 'footage')).toHaveLength(2);
  });

  it('tells of many with one cause in one line, whatever else is found', () => {
    fc.assert(
      fc.property(arbitraryLesson, (lesson) => {
        const found = check(lesson);
        const causes = byCause(found);
        const all = causes.flatMap(({ findings }) => findings.map(({ key }) => key));
        expect([...all].sort()).toEqual(found.map(({ key }) => key).sort());
        expect(new Set(causes.map(({ key }) => key)).size).toBe(causes.length);
        for (const cause of causes) {
          const { say } = causeWords(cause);
          const [first, second] = cause.findings;
          expect(second ? say.includes(String(cause.findings.length)) : say).toBe(
            second ? true : findingWords(first).say,
          );
        }
      }),
    );
    const jumps = [1, 2, 3].map((n) => talk({ id: `t${n}`, footprint: room }));
    const [space] = byCause(about(lessonOf(...jumps), 'space'));
    expect(space && causeWords(space)).toMatchObject({
      say: '3 blocks take room, and nothing says to clear the floor.',
      remedy: 'Add the usual caution',
    });
  });

  it('outlines what is found where it is on screen, and what a remedy put there', () => {
    const lesson = lessonOf(talk(), talk({ id: 'j', footprint: room }));
    const cutOf = (of: Lesson) => assemble(of, takes);
    const [space] = about(lesson, 'space');
    if (!space) throw new Error('Nothing was found.');
    const before = whereSeen(space, cutOf(lesson));
    const block = cutOf(lesson).blocks[1];
    expect(before.boxes).toEqual([]);
    expect(before.atMs).toBeGreaterThan(block?.startMs ?? Infinity);
    const better = structuredClone(lesson);
    space.remedy?.change(better);
    const after = whereSeen(space, cutOf(better));
    const caution = sceneAt(cutOf(better), after.atMs).items.find(({ slot }) => slot === 'caution');
    expect(after.boxes).toEqual([caution?.box]);
    expect(
      whereSeen({ blockId: 'j', atMs: 9_000, seenAt: ['picture'] }, cutOf(lesson)),
    ).toMatchObject({ atMs: 9_000, boxes: [REFERENCE] });
  });

  it('says everything once, the worst first, and its keys stay from one look to the next', () => {
    fc.assert(
      fc.property(arbitraryLesson, (lesson) => {
        const found = check(lesson);
        const keys = found.map(({ key }) => key);
        expect(new Set(keys).size).toBe(keys.length);
        expect(check(lesson).map(({ key }) => key)).toEqual(keys);
        const ranks = found.map(({ harm }) => harms.indexOf(harm));
        expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
        for (const { key, say, why } of found)
          expect(key.length <= 200 && say !== '' && why !== '').toBe(true);
      }),
    );
  });
});
