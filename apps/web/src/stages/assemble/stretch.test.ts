import { assemble, type TakeFacts } from '@zest/core/assembly';
import {
  makeBlock,
  makeLesson,
  editSchema,
  type Edit,
  type IntervalsBlock,
  type Lesson,
} from '@zest/core/lesson';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lanesOf } from './lanes/lane-items.ts';
import {
  blockActions,
  overlayActions,
  missingIn,
  momentActions,
  newEdit,
  stretchActions,
} from './new-edit.ts';
import { inBlock, momentsOf, nextMoment, placeOf, snapped } from './stretch.ts';
import { withDraft } from './with-draft.ts';
import { editText } from './words.ts';

const takes = new Map<string, TakeFacts>([['take', { id: 'take', frames: 900, marked: null }]]);
const work = (id: string, edits: Edit[]): IntervalsBlock => ({
  ...(makeBlock('intervals', () => id) as IntervalsBlock),
  id,
  rounds: 1,
  workMs: 10_000,
  leadInMs: 0,
  footage: { takeId: 'take', startsAtMs: 0 },
  edits,
});
const freeze: Edit = {
  id: 'f',
  kind: 'freeze',
  atMs: 4_000,
  lengthMs: 3_000,
  point: null,
  text: 'Look',
};
const lessonOf = (...blocks: IntervalsBlock[]): Lesson => ({
  ...makeLesson('A', () => 'l'),
  sections: [{ id: 's', title: 'Part', blocks }],
});
const cut = assemble(
  lessonOf(
    work('a', [freeze, { id: 'out', kind: 'leave-out', fromMs: 6_000, toMs: 8_000 }]),
    work('b', []),
  ),
  takes,
);

describe('a stretch of the video', () => {
  it('is of the block it begins in, in that block’s own time, and ends with it', () => {
    // 4 s, 3 s standing still, 2 s, 2 s left out, 2 s; then the second block.
    expect(inBlock(cut, { startMs: 1_000, endMs: 8_000 })).toEqual({
      blockId: 'a',
      fromMs: 1_000,
      toMs: 5_000,
    });
    expect(inBlock(cut, { startMs: 8_000, endMs: 60_000 })).toEqual({
      blockId: 'a',
      fromMs: 5_000,
      toMs: 10_000,
    });
    expect(inBlock(cut, { startMs: 12_000, endMs: 13_000 })).toEqual({
      blockId: 'b',
      fromMs: 1_000,
      toMs: 2_000,
    });
    // In what stands still no time of the block passes.
    expect(inBlock(cut, { startMs: 4_500, endMs: 6_500 })).toBeNull();
    expect(inBlock(cut, { startMs: 99_000, endMs: 99_500 })).toBeNull();
  });

  it('leads back from a change to where it is seen', () => {
    const [placed] = cut.blocks;
    if (!placed) throw new Error('There should be a block.');
    expect(placeOf(placed, freeze)).toEqual({ startMs: 4_000, endMs: 7_000 });
    expect(
      placeOf(placed, { id: 'n', kind: 'note', fromMs: 3_000, toMs: 5_000, text: '' }),
    ).toEqual({ startMs: 3_000, endMs: 8_000 });
    // What is left out has a place, and no length.
    expect(placeOf(placed, { id: 'out', kind: 'leave-out', fromMs: 6_000, toMs: 8_000 })).toEqual({
      startMs: 9_000,
      endMs: 9_000,
    });
    expect(placeOf(placed, { id: 'x', kind: 'fade', lengthMs: 500 })).toEqual({
      startMs: 0,
      endMs: 11_000,
    });
  });

  it('snaps to the nearest moment within reach, and else stays', () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat(10_000), { maxLength: 30 }),
        fc.nat(10_000),
        fc.nat(500),
        (list, ms, reach) => {
          const moments = [...list].sort((a, b) => a - b);
          const best = Math.min(Infinity, ...moments.map((moment) => Math.abs(moment - ms)));
          const found = snapped(moments, ms, reach);
          if (best <= reach) expect(Math.abs(found - ms)).toBe(best);
          else expect(found).toBe(ms);
          expect(nextMoment(moments, ms, 1)).toBe(
            Math.min(
              ...moments.filter((moment) => moment > ms),
              ...(moments.some((moment) => moment > ms) ? [] : [ms]),
            ),
          );
        },
      ),
    );
    expect(momentsOf(cut)).toEqual([...new Set(momentsOf(cut))].sort((a, b) => a - b));
  });
});

describe('a change by hand', () => {
  const at = {
    id: 'new',
    stretch: { blockId: 'a', fromMs: 1_000, toMs: 2_000 },
    atMs: 1_500,
    otherTakeId: 'other',
    slot: 'clock' as const,
  };
  const all = [...stretchActions, ...overlayActions, ...momentActions, ...blockActions];
  const kinds = [...new Set(all.map(([kind]) => kind))];

  it('has a key of its own among what is offered together', () => {
    for (const offered of [
      [...stretchActions, ...overlayActions],
      [...momentActions, ...blockActions],
    ])
      expect(new Set(offered.map(([, key]) => key)).size).toBe(offered.length);
  });

  it.each(kinds)('of kind %s begins as a document takes it, and is told in one line', (kind) => {
    const made = newEdit(kind, at);
    if (!made) throw new Error('There should be a change.');
    expect(editSchema.safeParse(made).success).toBe(true);
    expect(editText(made, () => 'Take 2').length).toBeGreaterThan(5);
  });

  it('that needs a stretch is not begun without one, and says what is missing', () => {
    for (const [kind] of [...stretchActions, overlayActions[0]!])
      expect(newEdit(kind, { ...at, stretch: null })).toBeNull();
    expect(missingIn({ id: 'n', kind: 'note', fromMs: 0, toMs: 1, text: ' ' })).toContain('Write');
    expect(missingIn({ id: 'n', kind: 'note', fromMs: 5, toMs: 5, text: 'Left' })).toContain('end');
    expect(
      missingIn({
        id: 'i',
        kind: 'instead',
        fromMs: 0,
        toMs: 1,
        takeId: 't',
        startsAtMs: null,
        picture: false,
        sound: false,
      }),
    ).toContain('picture');
    expect(
      missingIn({ id: 'b', kind: 'blur', fromMs: 0, toMs: 1, x: 0, y: 0, width: 0, height: 10 }),
    ).toContain('Draw');
    expect(missingIn(freeze)).toBeNull();
  });
});

describe('a change that is being made', () => {
  const lesson = lessonOf(work('a', []));
  const edit = { id: 'n', kind: 'note', fromMs: 0, toMs: 1_000, text: 'Left foot' } as const;
  const editsWith = (draft: Parameters<typeof withDraft>[1]) =>
    withDraft(lesson, draft).sections[0]?.blocks[0]?.edits;
  it('is seen once nothing is missing, and the lesson stays as it is', () => {
    expect(editsWith({ blockId: 'a', edit, isNew: true })).toEqual([edit]);
    expect(editsWith({ blockId: 'a', edit: { ...edit, text: '' }, isNew: true })).toEqual([]);
    expect(lesson.sections[0]?.blocks[0]?.edits).toEqual([]);
  });
  it('whose place is chosen on the picture is seen when it is played', () => {
    const blur = {
      ...({ id: 'b', kind: 'blur', fromMs: 0, toMs: 1 } as const),
      x: 1,
      y: 1,
      width: 9,
      height: 9,
    };
    expect(editsWith({ blockId: 'a', edit: blur, isNew: true })).toEqual([]);
    expect(editsWith({ blockId: 'a', edit: blur, isNew: true, isTried: true })).toEqual([blur]);
  });
});

describe('the lanes', () => {
  it('are those that hold something, and say how a picture is shown', () => {
    const rows = lanesOf(cut);
    expect(rows.map(({ name }) => name)).toEqual(['Picture', 'Clock', 'Cue', 'Board']);
    expect(rows[0]?.items.map(({ text }) => text)).toEqual([
      'Take',
      'Take, still',
      'Take',
      'Take',
      'Take',
    ]);
  });
});
