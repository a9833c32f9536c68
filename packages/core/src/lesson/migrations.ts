/** A document as it was read, before its shape is known. */
export type RawDocument = Record<string, unknown>;
/** Turns a document of version `n` into one of version `n + 1`. */
export type Migration = (document: RawDocument) => RawDocument;

type Raw = Record<string, unknown>;
const isRaw = (value: unknown): value is Raw =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Maps a list of objects; anything else stays for the schema to refuse in words. */
const each = (list: unknown, change: (item: Raw) => Raw): unknown =>
  Array.isArray(list) ? list.map((item: unknown) => (isRaw(item) ? change(item) : item)) : list;

/** What version 2 added to a block, at the value that means what version 1 meant. */
function blockTo2(block: Raw): Raw {
  const wider = {
    part: 'other',
    company: { kind: 'alone', players: 1, hands: '' },
    levels: [],
    footprint: null,
    facing: { performer: 'camera', viewer: 'screen' },
    mets: null,
    regions: [],
    locked: [],
    ...block,
    cues: each(block['cues'], (cue) => ({
      bodyPart: '',
      reason: '',
      right: '',
      wrong: '',
      anchor: null,
      ...cue,
    })),
    kit: each(block['kit'], (item) => ({ share: 'each', ...item })),
  };
  switch (block['kind']) {
    case 'intervals':
      return {
        demo: null,
        ladder: [],
        sets: 1,
        restBetweenSetsMs: 60_000,
        startSide: 'right',
        ...wider,
        exercises: each(block['exercises'], (exercise) => ({ sides: 'both', ...exercise })),
      };
    case 'reps':
      return { demo: null, parts: null, ...wider };
    default:
      return wider;
  }
}

/** Version 2: every kind of block, two targets, the student's room, the teacher's own parts. */
const to2: Migration = ({ targetMs, series, settings, sections, ...rest }) => ({
  room: null,
  ...rest,
  series: isRaw(series) ? { recap: '', teaser: '', ...series } : series,
  targets: {
    video:
      targetMs === null || targetMs === undefined ? null : { ms: targetMs, toleranceMs: 15_000 },
    session: null,
  },
  settings: isRaw(settings) ? { units: 'metric', parts: [], ...settings } : settings,
  sections: each(sections, (section) => ({
    ...section,
    blocks: each(section['blocks'], blockTo2),
  })),
});

/**
 * Version 3: skills, floor marks, the level of the week, the cue library, a glossary, counts in
 * other languages.
 */
const to3: Migration = ({ series, settings, sections, ...rest }) => ({
  glossary: [],
  ...rest,
  series: isRaw(series) ? { level: 'standard', ...series } : series,
  settings: isRaw(settings) ? { counts: { language: 'en', own: [] }, ...settings } : settings,
  sections: each(sections, (section) => ({
    ...section,
    blocks: each(section['blocks'], (block) => ({
      skill: '',
      floor: [],
      ...block,
      cues: each(block['cues'], (cue) => ({ entryId: null, ...cue })),
    })),
  })),
});

/** Version 4: how it is filmed. */
const to4: Migration = ({ sections, ...rest }) => ({
  filming: {
    lensMm: 26,
    orientation: 'landscape',
    safe: 'graphics',
    performerCm: 170,
    cameraCm: null,
    room: null,
    takesEach: 2,
    settleMs: 5_000,
    order: [],
  },
  ...rest,
  sections: each(sections, (section) => ({
    ...section,
    blocks: each(section['blocks'], (block) => ({ extent: null, shots: [], ...block })),
  })),
});

/** Version 5: changes by hand to the first cut, and how it looks and sounds. */
const to5: Migration = ({ sections, ...rest }) => ({
  finish: {
    look: {
      clock: 'ring',
      theme: 'warm',
      accent: '#ffb454',
      calm: false,
      profile: 'laptop at 2 m',
    },
    sound: { lufs: -16, lowCut: false, noise: 'left as it is', pacer: 'left out' },
  },
  ...rest,
  sections: each(sections, (section) => ({
    ...section,
    blocks: each(section['blocks'], (block) => ({ edits: [], ...block })),
  })),
});

/** Version 6: more on screen, music, a second language, missed repetitions, ignored findings. */
const to6: Migration = ({ finish, settings, sections, ...rest }) => {
  const slots = Object.fromEntries(
    ['clock', 'counter', 'cue', 'caution', 'side', 'board'].map((slot) => [
      slot,
      { size: 100, place: null },
    ]),
  );
  const { look, sound } = isRaw(finish) ? finish : {};
  const more = { boards: [], sides: false, counting: 'up', backing: 100, languages: 'one', slots };
  return {
    second: null,
    waived: [],
    ...rest,
    finish: {
      ...(isRaw(finish) && finish),
      look: isRaw(look) ? { ...more, ...look } : look,
      sound: isRaw(sound)
        ? { heard: ['clock', 'count', 'sides', 'calls'], music: null, ...sound }
        : sound,
    },
    settings: isRaw(settings) ? { language: 'en', ...settings } : settings,
    sections: each(sections, (section) => ({
      ...section,
      blocks: each(section['blocks'], (block) => ({
        shownBy: '',
        ...block,
        edits: each(block['edits'], (edit) => ({
          ...edit,
          ...(edit['kind'] === 'taps' && {
            taps: each(edit['taps'], (tap) => ({ missed: false, ...tap })),
          }),
          ...(edit['kind'] === 'closer' && { path: [], ...edit }),
        })),
      })),
    })),
  };
};

/**
 * Version 7: arrows that stay at a joint, and sentences moved in time, among the changes by hand;
 * what there was stays as it is.
 */
const to7: Migration = (document) => document;

/** Version 8: forms have an aim of their own. */
const to8: Migration = ({ sections, ...rest }) => ({
  ...rest,
  sections: each(sections, (section) => ({
    ...section,
    blocks: each(section['blocks'], (block) => ({
      ...block,
      levels: each(block['levels'], (level) => ({ target: null, ...level })),
    })),
  })),
});

/** Titles that blocks were made with, and that nobody wrote. */
const MADE_TITLES: ReadonlySet<unknown> = new Set(['Exercise', 'Exercise 1', 'Move 1']);

/**
 * Version 9: an exercise without a title is called as its block; one that only ever had the title
 * it was made with has none.
 */
const to9: Migration = ({ sections, ...rest }) => {
  const bare = (exercise: unknown) =>
    isRaw(exercise) && MADE_TITLES.has(exercise['title']) ? { ...exercise, title: '' } : exercise;
  const alone = (exercises: unknown) =>
    Array.isArray(exercises) && exercises.length === 1 ? exercises.map(bare) : exercises;
  const movesOf = (block: Raw) => ({
    ...block,
    ...('exercise' in block && { exercise: bare(block['exercise']) }),
    ...('exercises' in block && { exercises: alone(block['exercises']) }),
    ...('moves' in block && { moves: alone(block['moves']) }),
  });
  return {
    ...rest,
    sections: each(sections, (section) => ({
      ...section,
      blocks: each(section['blocks'], movesOf),
    })),
  };
};

/** Version 10: exercises of a list may speak for themselves; none did before. */
const to10: Migration = (document) => document;

/** Version 11: how so many play a block is told on boards, wherever a lesson says it. */
const to11: Migration = ({ finish, ...rest }) => {
  const look = isRaw(finish) && isRaw(finish['look']) ? finish['look'] : null;
  const boards: unknown = look?.['boards'];
  return Array.isArray(boards)
    ? { ...rest, finish: { ...(finish as Raw), look: { ...look, boards: [...boards, 'rules'] } } }
    : { ...rest, finish };
};

/** Steps from each old version to the next, by the version they start from. */
export const migrations: ReadonlyMap<number, Migration> = new Map([
  [1, to2],
  [2, to3],
  [3, to4],
  [4, to5],
  [5, to6],
  [6, to7],
  [7, to8],
  [8, to9],
  [9, to10],
  [10, to11],
]);
