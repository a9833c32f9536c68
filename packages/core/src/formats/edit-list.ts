import { takeFrameAt, type Assembly, type TakeSource } from '../assembly/index.ts';
import { firstFrameFrom, OUTPUT_FPS } from '../time/index.ts';

/** What a program that goes on with the cut must know of a take: the name of its file, and the frames in it. */
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

/** A stretch of one track: frames of the cut, and of the take it shows. */
interface Event {
  from: number;
  to: number;
  takeId: string | null;
  inFrame: number;
  speed: number;
}

/** Pictures or sounds in order, those that go on in the same take as one; frames that a take no longer has are shown as long as its last one. */
export function eventsOf({ segments }: Pick<Assembly, 'segments'>, track: 'picture' | 'sound'): Event[] {
  const events: Event[] = [];
  for (const segment of segments) {
    const from = firstFrameFrom(segment.startMs);
    const to = firstFrameFrom(segment.endMs);
    if (to === from) continue;
    const source: TakeSource | null = track === 'sound' ? (segment.sound?.source ?? null) : segment.source.kind === 'take' ? segment.source : null;
    const isStill = source !== null && source.takeFrames === source.inFrame + 1;
    const event: Event = { from, to, takeId: source?.takeId ?? null, inFrame: source?.inFrame ?? 0, speed: isStill ? 0 : (source?.speed ?? 1) };
    const last = events.at(-1);
    const goesOn = last && last.takeId === event.takeId && last.speed === event.speed && (source === null || (last.speed > 0 && last.inFrame + Math.floor((from - last.from) * last.speed + 1e-6) === takeFrameAt(segment, source, from)));
    if (goesOn) last.to = to;
    else events.push(event);
  }
  return events;
}

/** Reel names of a CMX 3600 list: at most 8 letters and digits. */
const reelName = (index: number) => `TAKE${String(index + 1).padStart(3, '0')}`;

/**
 * The cut as a CMX 3600 edit list at 30 frames a second without dropped frames. Cards are black (BL); pictures that are
 * slower, or stand still, carry an M2 line; the file of each reel stands in a comment.
 */
export function editList(assembly: Assembly, media: ReadonlyMap<string, CutMedia>): string {
  const takeIds = [...media.keys()];
  const lines = [`TITLE: ${assembly.title.replace(/[^\x20-\x7e]/g, ' ').slice(0, 70)}`, 'FCM: NON-DROP FRAME', ''];
  let number = 0;
  for (const [track, name] of [['picture', 'V'], ['sound', 'A']] as const) {
    for (const { from, to, takeId, inFrame, speed } of eventsOf(assembly, track)) {
      if (takeId === null && track === 'sound') continue;
      number += 1;
      const reel = takeId === null ? 'BL' : reelName(takeIds.indexOf(takeId));
      const outFrame = takeId === null ? to - from : inFrame + Math.max(1, Math.round((to - from) * speed));
      lines.push(`${String(number).padStart(3, '0')}  ${reel.padEnd(8)} ${name.padEnd(5)} C        ${timeCode(takeId === null ? 0 : inFrame)} ${timeCode(outFrame)} ${timeCode(from)} ${timeCode(to)}`);
      if (takeId !== null && Math.abs(speed - 1) > 0.001) lines.push(`M2   ${reel.padEnd(8)} ${(speed * OUTPUT_FPS).toFixed(1).padStart(5, '0')}                ${timeCode(inFrame)}`);
      if (takeId !== null) lines.push(`* FROM CLIP NAME: ${media.get(takeId)?.file ?? takeId}`);
    }
  }
  return `${lines.join('\r\n')}\r\n`;
}
