import type { Assembly } from '../assembly/index.ts';
import { firstFrameFrom, OUTPUT_FPS, type TimeSpan } from '../time/index.ts';
import { eventsOf, stillFile, type CutMedia } from './edit-list.ts';

const time = (frames: number) => ({
  OTIO_SCHEMA: 'RationalTime.1',
  rate: OUTPUT_FPS,
  value: frames,
});
const range = (from: number, frames: number) => ({
  OTIO_SCHEMA: 'TimeRange.1',
  start_time: time(from),
  duration: time(frames),
});
const common = (name: string) => ({ name, metadata: {}, effects: [], markers: [], enabled: true });

const marker = (name: string, color: string, from: number, frames: number) => ({
  OTIO_SCHEMA: 'Marker.2',
  name,
  metadata: {},
  color,
  marked_range: range(from, Math.max(1, frames)),
});
const markerOf = (name: string, color: string, { startMs, endMs }: TimeSpan) =>
  marker(name, color, firstFrameFrom(startMs), firstFrameFrom(endMs) - firstFrameFrom(startMs));

/** A file, and the frames there are of it. */
const external = (file: string, frames: number) => ({
  OTIO_SCHEMA: 'ExternalReference.1',
  name: file,
  metadata: {},
  available_range: range(0, frames),
  available_image_bounds: null,
  target_url: file,
});

function track(
  assembly: Assembly,
  which: 'picture' | 'sound',
  media: ReadonlyMap<string, CutMedia>,
) {
  const children = eventsOf(assembly, which).map(({ from, to, takeId, inFrame, speed }) => {
    const frames = to - from;
    if (takeId === null)
      return { OTIO_SCHEMA: 'Gap.1', ...common(''), source_range: range(0, frames) };
    const known = media.get(takeId);
    const clip = (name: string, begin: number, reference: object, effects: object[] = []) => ({
      OTIO_SCHEMA: 'Clip.2',
      ...common(name),
      effects,
      source_range: range(begin, frames),
      active_media_reference_key: 'DEFAULT_MEDIA',
      media_references: { DEFAULT_MEDIA: reference },
    });
    if (!known)
      return clip(takeId, inFrame, {
        OTIO_SCHEMA: 'MissingReference.1',
        name: takeId,
        metadata: {},
        available_range: null,
        available_image_bounds: null,
      });
    if (speed === 0) {
      const still = stillFile(known.file, inFrame);
      return clip(still, 0, external(still, frames));
    }
    const warp =
      Math.abs(speed - 1) > 0.001
        ? [
            {
              OTIO_SCHEMA: 'LinearTimeWarp.1',
              name: '',
              metadata: {},
              effect_name: 'LinearTimeWarp',
              time_scalar: speed,
            },
          ]
        : [];
    return clip(known.file, inFrame, external(known.file, known.frames), warp);
  });
  return {
    OTIO_SCHEMA: 'Track.1',
    ...common(which === 'picture' ? 'Picture' : 'Voice'),
    kind: which === 'picture' ? 'Video' : 'Audio',
    source_range: null,
    children,
  };
}

/**
 * The cut as an OpenTimelineIO file: one track of pictures, one of sound, with chapters, cues and
 * pauses as markers.
 */
export function timelineOf(assembly: Assembly, media: ReadonlyMap<string, CutMedia>): string {
  const markers = [
    ...assembly.chapters.map((chapter) => markerOf(chapter.title, 'GREEN', chapter)),
    ...assembly.lanes.cue.map((cue) => markerOf(cue.text, 'YELLOW', cue)),
    ...assembly.pauses.map((pause) =>
      markerOf(pause.isRest ? 'Rest until ready' : 'Pause and practise', 'RED', pause),
    ),
    ...eventsOf(assembly, 'picture')
      .filter(({ isHeld }) => isHeld)
      .map(({ from, to }) =>
        marker('The footage has ended; its last picture is held', 'RED', from, to - from),
      ),
  ];
  const stack = {
    OTIO_SCHEMA: 'Stack.1',
    ...common('tracks'),
    markers,
    source_range: null,
    children: [track(assembly, 'picture', media), track(assembly, 'sound', media)],
  };
  return JSON.stringify(
    {
      OTIO_SCHEMA: 'Timeline.1',
      name: assembly.title,
      metadata: {},
      global_start_time: null,
      tracks: stack,
    },
    null,
    2,
  );
}
