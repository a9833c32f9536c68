import { useLayoutEffect, useState, type RefObject } from 'react';

/** How wide the rail of the lanes is, in pixels, also after the window changed. */
export function useLaneWidth(lanes: RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(0);
  useLayoutEffect(() => {
    const rail = lanes.current?.querySelector('.lane-rail');
    if (!rail) return;
    const sized = new ResizeObserver(() => setWidth(Math.round(rail.clientWidth)));
    sized.observe(rail);
    return () => sized.disconnect();
  }, [lanes]);
  return width;
}
