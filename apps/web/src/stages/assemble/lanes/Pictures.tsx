import { routes, THUMB, urlOf, type Take } from '@zest/contract';
import { takeFrameAt, type Segment, type TakeSource } from '@zest/core/assembly';
import { firstFrameFrom, spanLength } from '@zest/core/time';

const HEIGHT_PX = 40;
const WIDTH_PX = Math.round((HEIGHT_PX * THUMB.width) / THUMB.height);

/** What a stretch of a take shows, one small picture beside the other. */
export function Pictures({
  take: segment,
  of,
  widthPx,
}: {
  take: Segment & { source: TakeSource };
  of: Take | undefined;
  /** How wide the stretch is drawn. */
  widthPx: number;
}) {
  const { source } = segment;
  if (!of || of.thumbs === 0 || of.frames === 0) return null;
  const count = Math.ceil(widthPx / WIDTH_PX);
  return (
    <span className="lane-pictures" aria-hidden="true">
      {Array.from({ length: count }, (_, i) => {
        const ms = segment.startMs + (spanLength(segment) * i) / count;
        const frame = takeFrameAt(segment, source, firstFrameFrom(ms));
        const thumb = Math.min(of.thumbs - 1, Math.floor((frame / of.frames) * of.thumbs));
        return (
          <i
            key={i}
            style={{
              left: `${(i * 100) / count}%`,
              width: `${100 / count}%`,
              backgroundImage: `url(${urlOf(routes.takeThumbs, { takeId: of.id })})`,
              backgroundSize: `${of.thumbs * WIDTH_PX}px ${HEIGHT_PX}px`,
              backgroundPosition: `-${thumb * WIDTH_PX}px 0`,
            }}
          />
        );
      })}
    </span>
  );
}
