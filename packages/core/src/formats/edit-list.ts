import type { Assembly, TakeSource, Segment } from '../assembly/index.ts';
import { firstFrameFrom, OUTPUT_FPS } from '../time/index.ts';
import { teacherText } from '../words/index.ts';

/**
 * What a program that goes on with the cut must know of a take: the name of its file, and the
 * frames in it.
 */
export interface CutMedia {
  file: string;
  frames: number;
}

/** Time code without dropped frames at the output rate: hh:mm:ss:ff. */
export function timeCode(frame: number, fps: number = OUTPUT_FPS): string {
  const two = (n: number) => String(n).padStart(2, '0');
  const s = Math.floor(frame / fps);
  return [Math.floor(s / 3600), Math.floor(s / 60) % 60, s % 60, frame % fps].map(two).join(':');
}

/** A stretch of one track: frames of the cut, and of the file it shows. */
interface Event {
  from: number;
  to: number;
  /** Null: nothing of a take. */
  takeId: string | null;
  /** The take's frame it begins with. */
  inFrame: number;
  /** Frames of the take for each of the cut; 0: it stands still. */
  speed: number;
  /** The take has ended; its last picture is held. */
  isHeld: boolean;
}

/** How much of an event its take has. Both in frames of the cut. */
const coveredBy = ({ inFrame, speed }: Event, takeFrames: number) =>
  Math.max(0, Math.ceil((takeFrames - inFrame) / speed - 1e-6));

/**
 * An event within its take: where that ends early, its last picture is held, or there is silence.
 */
function withinTake(event: Event, takeFrames: number, track: 'picture' | 'sound'): Event[] {
  if (event.takeId === null || event.speed === 0) return [event];
  const ends = event.from + coveredBy(event, takeFrames);
  if (ends >= event.to) return [event];
  const rest: Event =
    track === 'sound'
      ? { ...event, from: ends, takeId: null, inFrame: 0, speed: 1 }
      : { ...event, from: ends, inFrame: Math.max(0, takeFrames - 1), speed: 0, isHeld: true };
  return [...(ends > event.from ? [{ ...event, to: ends }] : []), rest];
}

/** What a segment shows or lets be heard of a take; null: nothing. */
function sourceOf({ source, sound }: Segment, track: 'picture' | 'sound'): TakeSource | null {
  if (track === 'sound') return sound?.source ?? null;
  return source.kind === 'take' ? source : null;
}

/** A segment as events of its track, none of which reaches beyond its take. */
function eventsOfSegment(segment: Segment, track: 'picture' | 'sound'): Event[] {
  const from = firstFrameFrom(segment.startMs);
  const to = firstFrameFrom(segment.endMs);
  if (to === from) return [];
  const source = sourceOf(segment, track);
  const nothing = { from, to, takeId: null, inFrame: 0, speed: 1, isHeld: false };
  if (!source) return withinTake(nothing, 0, track);
  const { takeId, inFrame, takeFrames, speed } = source;
  const isStill = takeFrames === inFrame + 1;
  return withinTake({ ...nothing, takeId, inFrame, speed: isStill ? 0 : speed }, takeFrames, track);
}

/** Whether an event only goes on with the one before. */
function goesOn(last: Event, event: Event): boolean {
  if (last.takeId !== event.takeId || last.speed !== event.speed || last.isHeld !== event.isHeld)
    return false;
  const expected = last.inFrame + Math.floor((event.from - last.from) * last.speed + 1e-6);
  return event.takeId === null || event.inFrame === expected;
}

/** Pictures or sounds in order, those that go on in the same take as one. */
export function eventsOf(
  { segments }: Pick<Assembly, 'segments'>,
  track: 'picture' | 'sound',
): Event[] {
  const events: Event[] = [];
  for (const event of segments.flatMap((segment) => eventsOfSegment(segment, track))) {
    const last = events.at(-1);
    if (last && goesOn(last, event)) last.to = event.to;
    else events.push(event);
  }
  return events;
}

/**
 * A picture that stands still is a file of its own, which may be shown as long as it has to be: one
 * frame of a take could not.
 */
export const stillFile = (takeFile: string, frame: number): string =>
  `stills/${takeFile.replace(/^.*\//, '').replace(/\.\w+$/, '')} ${frame}.png`;

/** The still pictures a cut needs beside its takes. */
export function stillsOf(
  assembly: Assembly,
  media: ReadonlyMap<string, CutMedia>,
): { file: string; takeId: string; frame: number }[] {
  const stills = eventsOf(assembly, 'picture').flatMap(({ takeId, inFrame, speed }) => {
    const known = takeId === null || speed > 0 ? undefined : media.get(takeId);
    return takeId !== null && known
      ? [{ file: stillFile(known.file, inFrame), takeId, frame: inFrame }]
      : [];
  });
  return [...new Map(stills.map((still) => [still.file, still])).values()];
}

/** What a program that goes on with the cut will miss, a line each. */
export function missingOf(assembly: Assembly): string[] {
  const pictures = eventsOf(assembly, 'picture');
  const at = (event: Event) =>
    teacherText('cut.from-to', { from: timeCode(event.from), to: timeCode(event.to) });
  return [
    ...pictures
      .filter(({ takeId }) => takeId === null)
      .map((event) => teacherText('cut.card-only', { at: at(event) })),
    ...pictures
      .filter(({ isHeld }) => isHeld)
      .map((event) => teacherText('cut.held', { at: at(event) })),
  ];
}

/** Reel names of a CMX 3600 list: at most 8 letters and digits. */
const reelName = (index: number) => `TAKE${String(index + 1).padStart(3, '0')}`;

/**
 * The cut as a CMX 3600 edit list at 30 frames a second without dropped frames. Cards are black
 * (BL); slower pictures carry an M2 line, those that stand still are reels of their own; the file
 * of each reel stands in a comment.
 */
export function editList(assembly: Assembly, media: ReadonlyMap<string, CutMedia>): string {
  const reels = new Map<string, string>();
  const reelOf = (file: string) => {
    const reel = reels.get(file) ?? reelName(reels.size);
    reels.set(file, reel);
    return reel;
  };
  for (const { file } of media.values()) reelOf(file);
  const lines = [
    `TITLE: ${assembly.title.replace(/[^\x20-\x7e]/g, ' ').slice(0, 70)}`,
    'FCM: NON-DROP FRAME',
    '',
  ];
  let number = 0;
  for (const [track, name] of [
    ['picture', 'V'],
    ['sound', 'A'],
  ] as const) {
    for (const { from, to, takeId, inFrame, speed, isHeld } of eventsOf(assembly, track)) {
      if (takeId === null && track === 'sound') continue;
      number += 1;
      const reelName = takeId === null ? null : (media.get(takeId)?.file ?? takeId);
      const file = reelName !== null && speed === 0 ? stillFile(reelName, inFrame) : reelName;
      const [begin, frames] =
        takeId === null || speed === 0
          ? [0, to - from]
          : [inFrame, Math.max(1, Math.floor((to - from - 1) * speed + 1e-6) + 1)];
      const reel = file === null ? 'BL' : reelOf(file);
      lines.push(
        `${String(number).padStart(3, '0')}  ${reel.padEnd(8)} ${name.padEnd(5)} C       ` +
          ` ${timeCode(begin)} ${timeCode(begin + frames)} ${timeCode(from)} ` +
          `${timeCode(to)}`,
      );
      if (file !== null && speed > 0 && Math.abs(speed - 1) > 0.001)
        lines.push(
          `M2   ${reel.padEnd(8)} ${(speed * OUTPUT_FPS).toFixed(1).padStart(5, '0')}      ` +
            `          ${timeCode(begin)}`,
        );
      if (file !== null) lines.push(`* FROM CLIP NAME: ${file}`);
      if (isHeld) lines.push('* FOOTAGE HAS ENDED, LAST PICTURE HELD');
    }
  }
  return `${lines.join('\r\n')}\r\n`;
}
