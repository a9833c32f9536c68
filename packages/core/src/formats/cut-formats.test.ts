import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import subsrt from 'subsrt-ts';
import { captionsFor, assemble, takeFrameAt, type TakeFacts } from '../assembly/index.ts';
import {
  forOtherHand,
  makeBlock,
  makeLesson,
  type Edit,
  type IntervalsBlock,
  type RepsBlock,
} from '../lesson/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { firstFrameFrom } from '../time/index.ts';
import {
  captionsToSubRip,
  chaptersMetadata,
  chaptersText,
  editList,
  missingOf,
  stillsOf,
  timeCode,
  timelineOf,
} from './index.ts';

const takes = new Map<string, TakeFacts>(
  ['front', 'side'].map((id) => [id, { id, frames: 900, marked: null }]),
);
const media = new Map(
  [...takes].map(([id, { frames }]) => [id, { file: `takes/${id}.mp4`, frames }]),
);
const edits: Edit[] = [
  { id: 'a', kind: 'again', fromMs: 2_000, toMs: 4_000, speed: 50, times: 1, sound: 'off' },
  { id: 'b', kind: 'freeze', atMs: 5_000, lengthMs: 1_000, point: null, text: '' },
  {
    id: 'c',
    kind: 'instead',
    fromMs: 6_000,
    toMs: 7_000,
    takeId: 'side',
    startsAtMs: 0,
    picture: true,
    sound: false,
  },
  {
    id: 'd',
    kind: 'card',
    atMs: 10_000,
    lengthMs: 2_000,
    heading: 'Rules',
    lines: [],
    court: false,
  },
];
const work: IntervalsBlock = {
  ...(makeBlock('intervals', counter()) as IntervalsBlock),
  rounds: 1,
  workMs: 10_000,
  leadInMs: 0,
  footage: { takeId: 'front', startsAtMs: 1_000 },
  edits,
};
const lesson = {
  ...makeLesson('Skip; and throw', counter()),
  sections: [{ id: 's', title: 'Warm = up', blocks: [work] }],
};
const cut = assemble(lesson, takes);

describe('SubRip', () => {
  it('is read by an independent parser (subsrt-ts) with the same times and words', () => {
    fc.assert(
      fc.property(
        fc.lorem({ maxCount: 80 }),
        fc.integer({ min: 5_000, max: 5_000_000 }),
        (script, lengthMs) => {
          const captions = captionsFor(script, { startMs: 1_234, endMs: 1_234 + lengthMs });
          const read = subsrt
            .parse(captionsToSubRip({ captions }), { format: 'srt' })
            .filter((entry) => entry.type === 'caption');
          expect(
            read.map(({ start, end, text }) => [
              start,
              end,
              text.replace(/\r\n/g, '\n').replace(/\n$/, ''),
            ]),
          ).toEqual(
            captions.map(({ startMs, endMs, lines }) => [startMs, endMs, lines.join('\n')]),
          );
        },
      ),
    );
  });
});

describe('chapters', () => {
  it('are lines of time and title, and metadata with their special letters written out', () => {
    expect(
      chaptersText({
        words: cut.words,
        chapters: [
          { title: 'Warm-up', startMs: 0, endMs: 61_000 },
          { title: ' ', startMs: 61_000, endMs: 3_700_000 },
        ],
      }),
    ).toBe('0:00 Warm-up\n1:01 Part 2\n');
    expect(chaptersMetadata(cut)).toContain('START=0\nEND=17000\ntitle=Warm \\= up');
  });
});

describe('time code', () => {
  it('counts 30 frames a second and drops none', () => {
    expect([0, 29, 30, 1_799, 108_000].map((frame) => timeCode(frame))).toEqual([
      '00:00:00:00',
      '00:00:00:29',
      '00:00:01:00',
      '00:00:59:29',
      '01:00:00:00',
    ]);
  });
});

/**
 * Reads an edit list by the columns CMX 3600 gives them: number, reel, track, transition, source in
 * and out, record in and out.
 */
function readEdl(text: string) {
  const frames = (code: string) =>
    code
      .split(':')
      .reduce((sum, part, i) => sum + Number(part) * ([3_600 * 30, 60 * 30, 30, 1][i] ?? 0), 0);
  return text.split('\r\n').flatMap((line) => {
    const match = /^(\d{3}) {2}(\w+) +(V|A) +C {8}(\S+) (\S+) (\S+) (\S+)$/.exec(line);
    return match
      ? [
          {
            reel: match[2] ?? '',
            track: match[3] ?? '',
            sourceIn: frames(match[4] ?? ''),
            sourceOut: frames(match[5] ?? ''),
            from: frames(match[6] ?? ''),
            to: frames(match[7] ?? ''),
          },
        ]
      : [];
  });
}

describe('the edit list', () => {
  const events = readEdl(editList(cut, media));
  const pictures = events.filter(({ track }) => track === 'V');

  it('tiles the cut with events, from the frames the cut shows', () => {
    let at = 0;
    for (const event of pictures) {
      expect(event.from).toBe(at);
      expect(event.to).toBeGreaterThan(event.from);
      at = event.to;
    }
    expect(at).toBe(firstFrameFrom(cut.durationMs));
    for (const { reel, from, sourceIn } of pictures) {
      const segment = cut.segments.find(
        ({ startMs, endMs }) => firstFrameFrom(startMs) <= from && from < firstFrameFrom(endMs),
      );
      const isStill =
        segment?.source.kind === 'take' && segment.source.takeFrames === segment.source.inFrame + 1;
      if (isStill) expect([reel, sourceIn]).toEqual(['TAKE003', 0]);
      else if (segment?.source.kind === 'take')
        expect([reel, sourceIn]).toEqual([
          segment.source.takeId === 'front' ? 'TAKE001' : 'TAKE002',
          takeFrameAt(segment, segment.source, from),
        ]);
      else expect(reel).toBe('BL');
    }
  });

  it('says slower and still pictures by M2 lines, and leaves silence out of the sound', () => {
    const text = editList(cut, media);
    expect(text).toMatch(/^TITLE: Skip; and throw\r\nFCM: NON-DROP FRAME/);
    expect(text.match(/^M2 {3}TAKE001 {2}\d+\.\d/gm)?.map((line) => line.slice(-5))).toEqual([
      '015.0',
    ]);
    expect(text).toContain('* FROM CLIP NAME: stills/front 180.png');
    // Silent: 4 s shown again, 1 s standing still, 2 s of a card.
    const heard = events
      .filter(({ track }) => track === 'A')
      .reduce((sum, { from, to }) => sum + to - from, 0);
    expect(heard).toBe(firstFrameFrom(cut.durationMs) - 7 * 30);
  });
});

interface Otio {
  OTIO_SCHEMA: string;
  name?: string;
  kind?: string;
  children?: Otio[];
  effects?: { OTIO_SCHEMA: string; time_scalar: number }[];
  source_range?: {
    start_time: { value: number; rate: number };
    duration: { value: number; rate: number };
  } | null;
  media_references?: {
    DEFAULT_MEDIA: { target_url: string; available_range: NonNullable<Otio['source_range']> };
  };
  tracks?: Otio & { markers: { name: string; marked_range: { start_time: { value: number } } }[] };
}

describe('the OpenTimelineIO file', () => {
  const timeline = JSON.parse(timelineOf(cut, media)) as Otio;

  it('has the schemas of the format, and tracks as long as the cut', () => {
    expect(timeline.OTIO_SCHEMA).toBe('Timeline.1');
    expect(timeline.tracks?.children?.map(({ OTIO_SCHEMA, kind }) => [OTIO_SCHEMA, kind])).toEqual([
      ['Track.1', 'Video'],
      ['Track.1', 'Audio'],
    ]);
    for (const track of timeline.tracks?.children ?? []) {
      expect(
        track.children?.every(
          ({ OTIO_SCHEMA }) => OTIO_SCHEMA === 'Clip.2' || OTIO_SCHEMA === 'Gap.1',
        ),
      ).toBe(true);
      expect(
        track.children?.reduce(
          (sum, { source_range: range }) => sum + (range?.duration.value ?? 0),
          0,
        ),
      ).toBe(firstFrameFrom(cut.durationMs));
    }
    expect(timeline.tracks?.markers.map(({ name }) => name)).toContain('At half speed');
  });

  it('names the file and the first frame of every clip, and how fast it runs', () => {
    const clips = timeline.tracks?.children?.[0]?.children?.map(
      ({ source_range: range, media_references: references, effects }) => [
        references?.DEFAULT_MEDIA.target_url ?? '',
        range?.start_time.value,
        effects?.[0]?.time_scalar ?? null,
      ],
    );
    expect(clips).toEqual([
      ['takes/front.mp4', 30, null],
      ['takes/front.mp4', 90, 0.5],
      ['takes/front.mp4', 150, null],
      ['stills/front 180.png', 0, null],
      ['takes/front.mp4', 180, null],
      ['takes/side.mp4', 180, null],
      ['takes/front.mp4', 240, null],
      ['', 0, null],
    ]);
  });
});

describe('footage that ends early', () => {
  const stretch = { fromMs: fc.nat(9_000), toMs: fc.nat(9_000) };
  const change: fc.Arbitrary<Edit> = fc.oneof(
    fc.record({
      id: fc.constant('e'),
      kind: fc.constant('again' as const),
      ...stretch,
      speed: fc.constantFrom(25, 50, 75, 100),
      times: fc.integer({ min: 1, max: 2 }),
      sound: fc.constantFrom('kept', 'off'),
    }),
    fc.record({
      id: fc.constant('f'),
      kind: fc.constant('freeze' as const),
      atMs: fc.nat(9_000),
      lengthMs: fc.integer({ min: 500, max: 3_000 }),
      point: fc.constant(null),
      text: fc.constant(''),
    }),
    fc.record({ id: fc.constant('g'), kind: fc.constant('leave-out' as const), ...stretch }),
  );

  it('is never read beyond its end, in either file, and the cut is as long as ever', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 31, max: 400 }),
        fc.array(change, { maxLength: 3 }),
        (frames, own) => {
          const short = new Map<string, TakeFacts>([
            ['front', { id: 'front', frames, marked: null }],
          ]);
          const files = new Map([['front', { file: 'takes/front.mp4', frames }]]);
          const made = assemble(
            { ...lesson, sections: [{ id: 's', title: '', blocks: [{ ...work, edits: own }] }] },
            short,
          );
          const { tracks } = JSON.parse(timelineOf(made, files)) as Otio;
          for (const track of tracks?.children ?? []) {
            for (const {
              source_range: range,
              media_references: references,
              effects,
            } of track.children ?? []) {
              const available = references?.DEFAULT_MEDIA.available_range;
              if (!range || !available) continue;
              const used =
                Math.floor((range.duration.value - 1) * (effects?.[0]?.time_scalar ?? 1) + 1e-6) +
                1;
              expect(range.start_time.value).toBeGreaterThanOrEqual(0);
              expect(range.start_time.value + used).toBeLessThanOrEqual(available.duration.value);
            }
            expect(
              track.children?.reduce(
                (sum, { source_range: range }) => sum + (range?.duration.value ?? 0),
                0,
              ),
            ).toBe(firstFrameFrom(made.durationMs));
          }
          const ofTake = readEdl(editList(made, files)).filter(({ reel }) => reel === 'TAKE001');
          for (const { sourceIn, sourceOut } of ofTake)
            expect([sourceIn >= 0, sourceOut <= frames]).toEqual([true, true]);
          for (const { frame } of stillsOf(made, files)) expect(frame).toBeLessThan(frames);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('is said, with its time', () => {
    const short = new Map<string, TakeFacts>([
      ['front', { id: 'front', frames: 150, marked: null }],
    ]);
    const made = assemble(
      { ...lesson, sections: [{ id: 's', title: '', blocks: [{ ...work, edits: [] }] }] },
      short,
    );
    expect(missingOf(made)).toEqual([
      '00:00:04:00 to 00:00:10:00: the footage has ended; its last picture is held.',
    ]);
    expect(
      (JSON.parse(timelineOf(made, media)) as Otio).tracks?.markers.find(({ name }) =>
        name.startsWith('The footage has ended'),
      )?.marked_range.start_time.value,
    ).toBe(120);
    expect(missingOf(cut)).toEqual([
      '00:00:15:00 to 00:00:17:00: a card, which only the exported video has.',
    ]);
  });
});

describe('the lesson for the other hand', () => {
  it('turns picture and sides round, and back again when done twice', () => {
    const reps: RepsBlock = {
      ...(makeBlock('reps', counter()) as RepsBlock),
      sides: 'each',
      startSide: 'right',
      edits: [{ id: 't', kind: 'taps', taps: [{ atMs: 0, side: 'left', missed: false }] }],
    };
    const filmed = { ...lesson, sections: [{ id: 's', title: '', blocks: [work, reps] }] };
    const turned = assemble(forOtherHand(filmed), takes);
    expect(
      turned.segments
        .filter(({ source }) => source.kind === 'take')
        .every(({ look }) => look.mirrored),
    ).toBe(true);
    expect(turned.lanes.counter.at(0)?.side).toBe('right');
    expect(
      assemble(
        forOtherHand({
          ...filmed,
          sections: [{ id: 's', title: '', blocks: [{ ...reps, edits: [] }] }],
        }),
        takes,
      ).lanes.counter.at(0)?.side,
    ).toBe('left');
    expect(forOtherHand(forOtherHand(filmed))).toEqual(filmed);
  });
});
