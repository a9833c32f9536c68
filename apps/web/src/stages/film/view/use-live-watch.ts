import { SAFE_PART, type BodyRoom } from '@zest/core/framing';
import type { Filming } from '@zest/core/lesson';
import {
  boxAbout,
  frameHint,
  lightHint,
  steady,
  sureJoints,
  type FrameHint,
  type LightHint,
} from '@zest/core/signal';
import { teacherText } from '@zest/core/words';
import { useEffect, useEffectEvent, useState } from 'react';
import { LiveWatch, type Look } from '../../../workers/watch.ts';

/** Somebody who passes through a wrong place is not told so. */
const SAID_AFTER_MS = 900;
const LIGHT_EVERY_MS = 1_000;
const LUMA = { width: 32, height: 18 };
/** With fewer looks than this a second, hints come late and are said to. */
const SLOW_PER_SECOND = 2;

export interface Watched {
  hint: FrameHint | null;
  light: LightHint | null;
  /** Looks in the last seconds, per second. */
  perSecond: number;
  isSlow: boolean;
  fault: string | null;
}

const NOTHING: Watched = { hint: null, light: null, perSecond: 0, isSlow: false, fault: null };

/** Brightness of a playing picture, small. */
function lumaOf(video: HTMLVideoElement, ctx: CanvasRenderingContext2D): Uint8Array {
  ctx.drawImage(video, 0, 0, LUMA.width, LUMA.height);
  const { data } = ctx.getImageData(0, 0, LUMA.width, LUMA.height);
  return Uint8Array.from({ length: LUMA.width * LUMA.height }, (_, i) =>
    Math.round(
      0.2126 * (data[4 * i] ?? 0) +
        0.7152 * (data[4 * i + 1] ?? 0) +
        0.0722 * (data[4 * i + 2] ?? 0),
    ),
  );
}

/**
 * Looks at the first camera while the film view is open: where to stand for the coming move, and
 * whether there is light. Never holds filming up.
 */
export function useLiveWatch(
  video: HTMLVideoElement | null,
  room: BodyRoom,
  filming: Filming,
): Watched {
  const [watched, setWatched] = useState<Watched>(NOTHING);
  const judge = useEffectEvent((look: Look, aspect: number): FrameHint => {
    const tall = filming.performerCm;
    return frameHint(
      look.pose,
      { left: room.leftCm / tall, right: room.rightCm / tall, top: room.topCm / tall },
      SAFE_PART[filming.safe],
      aspect,
    );
  });
  useEffect(() => {
    if (!video) return;
    const ctx = Object.assign(document.createElement('canvas'), LUMA).getContext('2d', {
      willReadFrequently: true,
    });
    const said = steady<FrameHint>(SAID_AFTER_MS);
    const times: number[] = [];
    let light: LightHint | null = null;
    let litAt = -Infinity;
    const watch = new LiveWatch(
      video,
      (look) => {
        const now = performance.now();
        times.push(now);
        while ((times[0] ?? now) < now - 3_000) times.shift();
        if (ctx && now - litAt > LIGHT_EVERY_MS) {
          litAt = now;
          const sure = sureJoints(look.pose);
          light = lightHint(
            lumaOf(video, ctx),
            LUMA.width,
            sure.length > 0 ? boxAbout(sure) : null,
          );
        }
        const hint = said(judge(look, video.videoWidth / video.videoHeight), now);
        const perSecond =
          Math.round(
            (Math.max(0, times.length - 1) / Math.max(1, (now - (times[0] ?? now)) / 1000)) * 2,
          ) / 2;
        const next: Watched = {
          hint,
          light,
          perSecond,
          isSlow: times.length > 3 && perSecond < SLOW_PER_SECOND,
          fault: null,
        };
        setWatched((known) => (JSON.stringify(known) === JSON.stringify(next) ? known : next));
      },
      (message) =>
        setWatched({
          ...NOTHING,
          fault: teacherText('filming.picture-not-watched-filming', { message }),
        }),
    );
    return () => {
      watch.stop();
      setWatched(NOTHING);
    };
  }, [video]);
  return watched;
}
