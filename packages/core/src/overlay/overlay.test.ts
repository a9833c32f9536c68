import { createRequire } from 'node:module';
import { createCanvas, GlobalFonts } from '@napi-rs/canvas';
import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { assemble, slots, type Board } from '../assembly/index.ts';
import { LIMITS, themes, usualFinish } from '../lesson/index.ts';
import { arbitraryLesson } from '../testing/arbitrary.ts';
import { firstFrameFrom, instantOfFrame } from '../time/index.ts';
import {
  fitText,
  FONT_FAMILIES,
  FRAMES,
  indexAt,
  inkOf,
  MIN_TEXT,
  paintableText,
  paintScene,
  paintItemAt,
  REFERENCE,
  SAFE_AREA,
  sameItem,
  sceneAt,
  SLOT_BOXES,
  slotAt,
  UPRIGHT_BOXES,
  type Box,
  type PaintContext,
  type SceneItem,
} from './index.ts';
import { throughGround } from './ink.ts';

const { look } = usualFinish;
const measure = (text: string, size: number) => [...text].length * size * 0.55;

beforeAll(() => {
  const { resolve } = createRequire(import.meta.url);
  for (const [family, weight] of [
    [FONT_FAMILIES.regular, 400],
    [FONT_FAMILIES.bold, 700],
  ] as const) {
    GlobalFonts.registerFromPath(
      resolve(
        `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff2`,
      ),
      family,
    );
  }
});

function context(width: number, height: number) {
  const ctx = createCanvas(width, height).getContext('2d');
  return {
    ctx,
    canvas: ctx.canvas,
    paint: ctx as unknown as PaintContext,
    pixels: () => ctx.getImageData(0, 0, width, height).data,
  };
}

const isBlank = (pixels: Uint8ClampedArray): boolean =>
  new Uint32Array(pixels.buffer).every((value) => value === 0);

describe('scenes', () => {
  it('show exactly what covers the instant', () => {
    fc.assert(
      fc.property(arbitraryLesson, fc.double({ min: 0, max: 1, noNaN: true }), (lesson, part) => {
        const cut = assemble(lesson, new Map());
        const ms = Math.floor(part * Math.max(0, cut.durationMs - 1));
        const scene = sceneAt(cut, ms);
        for (const slot of slots) {
          const covering = (cut.lanes[slot] as { startMs: number; endMs: number }[]).filter(
            (o) => o.startMs <= ms && ms < o.endMs,
          );
          expect(scene.items.filter((item) => item.slot === slot)).toHaveLength(covering.length);
        }
      }),
    );
  });

  it('finds items like a plain search does', () => {
    const spans = fc.array(fc.integer({ min: 1, max: 50 }), { maxLength: 30 }).map((lengths) => {
      let at = 0;
      return lengths.flatMap((length, i) => {
        const span = { startMs: at, endMs: at + length };
        at += length;
        return i % 3 === 2 ? [] : [span];
      });
    });
    fc.assert(
      fc.property(spans, fc.integer({ min: -5, max: 1_500 }), (items, ms) => {
        expect(indexAt(items, ms)).toBe(items.findIndex((s) => s.startMs <= ms && ms < s.endMs));
      }),
    );
  });

  it('change the digit on the frame of the second, not before', () => {
    const cut = { ...assemble({ ...emptyLesson(), sections: [] }, new Map()), durationMs: 20_000 };
    cut.lanes.clock = [
      {
        slot: 'clock',
        startMs: 0,
        endMs: 20_000,
        phase: 'work',
        title: 'Skip',
        next: '',
        round: '',
        up: false,
        breaths: null,
        elapsedMs: 0,
        totalMs: 20_000,
      },
    ];
    const digitsAt = (frame: number) =>
      (slotAt(cut, 'clock', instantOfFrame(frame)) as { digits: string }).digits;
    const change = firstFrameFrom(7_000);
    expect([digitsAt(change - 1), digitsAt(change)]).toEqual(['14', '13']);
    expect([digitsAt(0), digitsAt(599)]).toEqual(['20', '1']);
  });

  it('count beats, breaths and time gone', () => {
    const cut = { ...assemble({ ...emptyLesson(), sections: [] }, new Map()), durationMs: 20_000 };
    const span = { startMs: 0, endMs: 4_000, elapsedMs: 0, totalMs: 4_000 };
    cut.lanes.counter = [
      { ...span, slot: 'counter', rep: 2, reps: 4, side: null, note: '', beats: 8, missed: false },
    ];
    cut.lanes.clock = [
      {
        ...span,
        slot: 'clock',
        phase: 'hold',
        title: 'Heron',
        next: 'Last one',
        round: '',
        up: true,
        breaths: { inMs: 1_500, outMs: 2_500 },
      },
    ];
    // 8 beats in 4 s are 120 a minute (arithmetic).
    expect([0, 499, 500, 3_999].map((ms) => slotAt(cut, 'counter', ms))).toMatchObject(
      [1, 1, 2, 8].map((rep) => ({ rep, reps: 8 })),
    );
    expect([0, 999, 1_000, 3_999].map((ms) => slotAt(cut, 'clock', ms))).toMatchObject(
      ['0', '0', '1', '3'].map((digits) => ({ digits })),
    );
    expect([1_499, 1_500].map((ms) => slotAt(cut, 'clock', ms))).toMatchObject([
      { next: 'Breathe in' },
      { next: 'Breathe out' },
    ]);
  });

  it('are the same only when nothing seen differs', () => {
    const item = {
      slot: 'counter',
      rep: 1,
      reps: 3,
      side: 'left',
      note: '',
      shown: 1,
      tail: 'of 3',
      beats: 0,
      reached: false,
      missed: false,
      box: SLOT_BOXES.counter,
    } as const satisfies SceneItem;
    expect(sameItem(item, { ...item })).toBe(true);
    expect(sameItem(item, { ...item, rep: 2 })).toBe(false);
    expect(sameItem(item, null)).toBe(false);
  });
});

function emptyLesson() {
  return { ...fc.sample(arbitraryLesson, 1)[0]!, title: 'Empty' };
}

describe('layout', () => {
  const inside = (inner: Box, outer: Box) =>
    inner.x >= outer.x &&
    inner.y >= outer.y &&
    inner.x + inner.width <= outer.x + outer.width &&
    inner.y + inner.height <= outer.y + outer.height;
  const apart = (a: Box, b: Box) =>
    a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y;

  it(
    'keeps every slot in the graphics safe area, 90 % of width and height (EBU R 95, ' +
      'SMPTE ST 2046-1), and off the others',
    () => {
      expect([SAFE_AREA.width / REFERENCE.width, SAFE_AREA.height / REFERENCE.height]).toEqual([
        0.9, 0.9,
      ]);
      // An arrow may point anywhere on a still picture.
      const { pointer: _arrow, ...kept } = SLOT_BOXES;
      const boxes: Box[] = Object.values(kept);
      for (const box of boxes) {
        expect(inside(box, SAFE_AREA)).toBe(true);
        expect([box.x, box.y, box.width, box.height].every((side) => side % 2 === 0)).toBe(true);
        for (const other of boxes) if (other !== box) expect(apart(box, other)).toBe(true);
      }
    },
  );

  it('fits any text into its width and lines, never under the smallest size', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme', maxLength: 200 }),
        fc.integer({ min: 1, max: 3 }),
        (text, maxLines) => {
          const fitted = fitText(text, 300, maxLines, 60, measure);
          expect(fitted.lines.length).toBeLessThanOrEqual(maxLines);
          expect(fitted.size).toBeGreaterThanOrEqual(MIN_TEXT);
          for (const line of fitted.lines)
            expect(measure(line, fitted.size)).toBeLessThanOrEqual(300 + measure('…', fitted.size));
        },
      ),
    );
    expect(fitText('Snap and stop', 1_000, 1, 60, measure)).toEqual({
      size: 60,
      lines: ['Snap and stop'],
    });
  });

  it('leaves out pictographs only when painting', () => {
    expect(paintableText('Skip 🤸‍♀️ 3 × #1\nnow')).toBe('Skip ♀ 3 × #1 now'.replace('♀ ', ''));
  });

  it('uses pairs of at least 4.5:1 (WCAG 2.2, 1.4.3), checked on #767676 at 4.54 and #777777 at 4.48', () => {
    const light = (hex: string) => {
      const [r = 0, g = 0, b = 0] = [1, 3, 5].map((i) => {
        const c = parseInt(hex.slice(i, i + 2), 16) / 255;
        return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
      });
      return 0.2126 * r + 0.7152 * g + 0.0722 * b;
    };
    const contrast = (a: string, b: string) => {
      const [high = 0, low = 0] = [light(a), light(b)].sort((x, y) => y - x);
      return (high + 0.05) / (low + 0.05);
    };
    expect(contrast('#767676', '#ffffff')).toBeCloseTo(4.54, 2);
    expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2);
    // Whatever accent a teacher chooses, on every theme.
    const accent = fc
      .integer({ min: 0, max: 0xffffff })
      .map((n) => `#${n.toString(16).padStart(6, '0')}`);
    fc.assert(
      fc.property(fc.constantFrom(...themes), accent, (theme, colour) => {
        const ink = inkOf({ theme, accent: colour, backing: 100 });
        for (const text of [ink.text, ink.dim, ink.accent, ink.rest, ink.ready])
          expect(contrast(text, ink.panel)).toBeGreaterThanOrEqual(4.5);
        for (const ground of [ink.caution, ink.correction])
          expect(contrast(ink.cautionText, ground)).toBeGreaterThanOrEqual(4.5);
        expect(contrast(ink.onAccent, ink.accent)).toBeGreaterThanOrEqual(4.5);
        // A ground that lets the picture through is read over black and over white.
        const thin = inkOf({ theme, accent: colour, backing: LIMITS.backing.min });
        for (const ground of throughGround(thin.panel, thin.backing))
          for (const text of [thin.text, thin.dim, thin.accent, thin.rest, thin.ready])
            expect(contrast(text, ground)).toBeGreaterThanOrEqual(4.5);
        for (const text of [ink.text, ink.dim, ink.accent])
          expect(contrast(text, ink.card)).toBeGreaterThanOrEqual(4.5);
      }),
    );
    // One that can be read is left as it is.
    expect(inkOf({ theme: 'warm', accent: '#ffb454', backing: 100 }).accent).toBe('#ffb454');
  });
});

const boards: Board[] = [
  { kind: 'chapter', title: 'Warm-up' },
  { kind: 'name', name: 'Coach' },
  { kind: 'kit', lines: ['1 rope, or a towel', '2 bottles', 'water', 'a mat', 'tape'] },
  { kind: 'level', form: 'easier', text: 'From the knees', rule: 'If your back sags' },
  { kind: 'strip', done: 2, of: 5, now: 'Skipping', then: 'Cool-down' },
  {
    kind: 'floor',
    floor: {
      blockId: 'b',
      title: '',
      move: { widthCm: 100, depthCm: 100, heightCm: 220 },
      marks: [
        {
          mark: {
            id: 'm',
            kind: 'marker',
            label: 'Bottle',
            rightCm: 0,
            forwardCm: 100,
            widthCm: 30,
            depthCm: 30,
          },
          screenRightCm: 60,
          nearCm: 100,
          widthCm: 0,
          depthCm: 0,
        },
      ],
      reach: { screenLeftCm: 50, screenRightCm: 60, farCm: 50, nearCm: 100 },
      size: { widthCm: 110, depthCm: 150, heightCm: 220 },
    },
  },
];

describe('painter', () => {
  const clock = (digits: string): SceneItem => ({
    box: SLOT_BOXES.clock,
    slot: 'clock',
    phase: 'work',
    word: 'Work',
    last: false,
    digits,
    left: 0.5,
    title: 'Rope skipping',
    next: 'Next: rest 10 s',
    round: '2 of 4',
    also: '',
  });
  const items: SceneItem[] = [
    clock('18'),
    {
      box: SLOT_BOXES.counter,
      slot: 'counter',
      rep: 10,
      reps: 12,
      side: 'left',
      note: 'Set 1 of 2',
      shown: 10,
      tail: 'of 12',
      beats: 0,
      reached: false,
      missed: true,
    },
    {
      box: SLOT_BOXES.counter,
      slot: 'counter',
      rep: 12,
      reps: 12,
      side: null,
      note: '',
      shown: 12,
      tail: 'of 12',
      beats: 8,
      reached: true,
      missed: false,
    },
    {
      box: SLOT_BOXES.cue,
      slot: 'cue',
      text: 'A long cue that needs more than the two lines it may have on the card',
      moment: 'action',
      word: 'Now',
      also: '',
      right: '',
      wrong: '',
    },
    {
      box: SLOT_BOXES.cue,
      slot: 'cue',
      text: 'Snap and stop',
      moment: 'action',
      word: 'Now',
      also: '',
      right: 'The wrist stops',
      wrong: 'The arm swings on and on and on',
    },
    {
      box: SLOT_BOXES.cue,
      slot: 'cue',
      text: 'قف على جنبك',
      moment: 'ready',
      word: 'Ready',
      also: 'Stand side-on',
      right: '',
      wrong: '',
    },
    {
      box: SLOT_BOXES.caution,
      slot: 'caution',
      text: 'Stop if it hurts. '.repeat(12),
      tone: 'caution',
      also: 'Para si duele',
    },
    {
      box: SLOT_BOXES.caution,
      slot: 'caution',
      text: 'The left hand, not the right',
      tone: 'correction',
      also: '',
    },
    { box: SLOT_BOXES.pointer, slot: 'pointer', text: 'Elbow', x: 300, y: 600, words: 'right' },
    ...(['left', 'right', 'near', 'far'] as const).map((seen): SceneItem => ({
      box: SLOT_BOXES.side,
      slot: 'side',
      side: 'left',
      seen,
      away: seen === 'left',
      word: 'Left',
      reading: 'on the left here',
    })),
    ...boards.map((board): SceneItem => ({
      box: SLOT_BOXES.board,
      slot: 'board',
      board,
      heading: 'You need',
      also: board.kind === 'chapter' ? 'Calentamiento' : '',
    })),
  ];

  it('paints every slot inside the smaller boxes of an upright frame too', () => {
    for (const item of items) {
      const { canvas, paint, pixels } = context(FRAMES.upright.width, FRAMES.upright.height);
      const box = UPRIGHT_BOXES[item.slot];
      paintScene(
        paint,
        {
          atMs: 0,
          shape: 'upright',
          card: null,
          rising: null,
          items: [{ ...item, box }],
          caption: null,
          look,
        },
        canvas.width,
      );
      expect(isBlank(pixels())).toBe(false);
      canvas.getContext('2d').clearRect(box.x, box.y, box.width, box.height);
      expect(isBlank(pixels())).toBe(true);
    }
  });

  it('paints a slot alone as it paints it in the whole scene, and nothing beside its box', () => {
    for (const item of items) {
      const box = SLOT_BOXES[item.slot];
      const whole = context(REFERENCE.width, REFERENCE.height);
      paintScene(
        whole.paint,
        { atMs: 0, shape: 'wide', card: null, rising: null, items: [item], caption: null, look },
        REFERENCE.width,
      );
      const alone = context(box.width, box.height);
      paintItemAt(alone.paint, item, look, { left: box.x, top: box.y, scale: 1 });
      const part = whole.ctx.getImageData(box.x, box.y, box.width, box.height).data;
      const pixels = alone.pixels();
      const most = part.reduce(
        (worst, value, i) => Math.max(worst, Math.abs(value - (pixels[i] ?? 0))),
        0,
      );
      // Edges may differ by some levels, because antialiasing starts from another origin.
      expect(most).toBeLessThanOrEqual(8);
      whole.ctx.clearRect(box.x, box.y, box.width, box.height);
      expect(isBlank(whole.pixels())).toBe(true);
    }
  });

  it('keeps digits of equal width: 11 and 48 leave the same cells', () => {
    const edges = (digits: string) => {
      const { paint, ctx } = context(REFERENCE.width, REFERENCE.height);
      const drawn: number[] = [];
      const spy = new Proxy(paint, {
        get: (target, key) =>
          key === 'fillText'
            ? (text: string, x: number, y: number) => {
                if (/^\d$/.test(text)) drawn.push(x);
                ctx.fillText(text, x, y);
              }
            : typeof Reflect.get(target, key) === 'function'
              ? (Reflect.get(target, key) as (...a: unknown[]) => unknown).bind(target)
              : Reflect.get(target, key),
        set: (target, key, value) => Reflect.set(target, key, value),
      });
      paintItemAt(spy, clock(digits), look, { left: 0, top: 0, scale: 1 });
      return drawn;
    };
    expect(edges('11')).toHaveLength(2);
    expect(edges('11')).toEqual(edges('48'));
  });

  it('scales with the picture and clears what was there', () => {
    const small = context(640, 360);
    paintScene(
      small.paint,
      {
        atMs: 0,
        shape: 'wide',
        card: { heading: 'Kit', lines: ['Rope', 'Disc'] },
        rising: null,
        items: [],
        caption: null,
        look,
      },
      640,
    );
    expect(small.pixels()[3]).toBe(255);
    paintScene(
      small.paint,
      {
        atMs: 0,
        shape: 'wide',
        card: null,
        rising: null,
        items: [clock('5')],
        caption: null,
        look,
      },
      640,
    );
    const { x, y, width, height } = SLOT_BOXES.clock;
    expect(small.ctx.getImageData((x + width / 2) / 2, (y + height / 2) / 2, 1, 1).data[3]).toBe(
      255,
    );
    expect(small.pixels()[3]).toBe(0);
  });
});
