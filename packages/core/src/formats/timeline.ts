import type { Assembly } from '../assembly/index.ts';
import { firstFrameFrom, OUTPUT_FPS, type TimeSpan } from '../time/index.ts';
import { eventsOf, type CutMedia } from './edit-list.ts';

const time = (frames: number) => ({ OTIO_SCHEMA: 'RationalTime.1', rate: OUTPUT_FPS, value: frames });
const range = (from: number, frames: number) => ({ OTIO_SCHEMA: 'TimeRange.1', start_time: time(from), duration: time(frames) });
const common = (name: string) => ({ name, metadata: {}, effects: [], markers: [], enabled: true });

function marker(name: string, color: string, { startMs, endMs }: TimeSpan) {
  const from = firstFrameFrom(startMs);
  return { OTIO_SCHEMA: 'Marker.2', name, metadata: {}, color, marked_range: range(from, Math.max(1, firstFrameFrom(endMs) - from)) };
}

function track(assembly: Assembly, which: 'picture' | 'sound', media: ReadonlyMap<string, CutMedia>) {
  const children = eventsOf(assembly, which).map(({ from, to, takeId, inFrame, speed }) => {
    const frames = to - from;
    if (takeId === null) return { OTIO_SCHEMA: 'Gap.1', ...common(''), source_range: range(0, frames) };
    const known = media.get(takeId);
    const reference = known
      ? { OTIO_SCHEMA: 'ExternalReference.1', name: known.file, metadata: {}, available_range: range(0, known.frames), available_image_bounds: null, target_url: known.file }
      : { OTIO_SCHEMA: 'MissingReference.1', name: takeId, metadata: {}, available_range: null, available_image_bounds: null };
    const warp = speed === 0 ? [{ OTIO_SCHEMA: 'FreezeFrame.1', name: '', metadata: {}, effect_name: 'FreezeFrame', time_scalar: 0 }] : Math.abs(speed - 1) > 0.001 ? [{ OTIO_SCHEMA: 'LinearTimeWarp.1', name: '', metadata: {}, effect_name: 'LinearTimeWarp', time_scalar: speed }] : [];
    return { OTIO_SCHEMA: 'Clip.2', ...common(known?.file ?? takeId), effects: warp, source_range: range(inFrame, frames), active_media_reference_key: 'DEFAULT_MEDIA', media_references: { DEFAULT_MEDIA: reference } };
  });
  return { OTIO_SCHEMA: 'Track.1', ...common(which === 'picture' ? 'Picture' : 'Voice'), kind: which === 'picture' ? 'Video' : 'Audio', source_range: null, children };
}

/** The cut as an OpenTimelineIO file: one track of pictures, one of sound, with chapters, cues and pauses as markers. */
export function timelineOf(assembly: Assembly, media: ReadonlyMap<string, CutMedia>): string {
  const markers = [
    ...assembly.chapters.map((chapter) => marker(chapter.title, 'GREEN', chapter)),
    ...assembly.lanes.cue.map((cue) => marker(cue.text, 'YELLOW', cue)),
    ...assembly.pauses.map((pause) => marker('Pause and practise', 'RED', pause)),
  ];
  const stack = { OTIO_SCHEMA: 'Stack.1', ...common('tracks'), markers, source_range: null, children: [track(assembly, 'picture', media), track(assembly, 'sound', media)] };
  return JSON.stringify({ OTIO_SCHEMA: 'Timeline.1', name: assembly.title, metadata: {}, global_start_time: null, tracks: stack }, null, 2);
}
