import type { Framing } from '@zest/core/framing';
import { spaceText, type Filming, type Lesson } from '@zest/core/lesson';

export const SIZE = { width: 480, side: 235, top: 255 };
export const COLOURS = { ink: '#fff6ea', soft: '#b8a892', lit: '#ffb454', move: '#8fd6c9' };
export const MARGIN = { x: 22, y: 30 };

/** Where the camera would stand with a lens. */
export interface Stand {
  lensMm: number;
  distanceCm: number;
}

/** All the drawing is laid out by: lengths of the room in centimetres, places in the picture. */
export function layOutDrawing(
  { room }: Framing,
  placing: NonNullable<Framing['placing']>,
  filming: Filming,
  units: Lesson['settings']['units'],
  heldScale: number | null,
) {
  const { camera, tape } = placing;
  const teacherRoom = filming.room;
  const deep = Math.max(placing.depthCm, teacherRoom?.depthCm ?? 0);
  const wide = Math.max(
    room.leftCm + room.rightCm,
    tape.leftCm + tape.rightCm,
    teacherRoom?.widthCm ?? 0,
  );
  const high = Math.max(room.topCm * 1.15, camera.heightCm, teacherRoom?.heightCm ?? 0);
  // While something is held, the drawing keeps its scale under the hand.
  const scale =
    heldScale ??
    Math.min(
      (SIZE.width - 2 * MARGIN.x) / deep,
      (SIZE.side - 2 * MARGIN.y) / high,
      (SIZE.top - 2 * MARGIN.y) / wide,
    );
  // Both views have the far wall on the left and the camera on the right.
  const x = (nearCm: number) =>
    MARGIN.x + (room.farCm + Math.max(0, deep - placing.depthCm) + nearCm) * scale;
  const floorY = SIZE.side - MARGIN.y;
  const up = (cm: number) => floorY - cm * scale;
  const middleY = SIZE.side + SIZE.top / 2;
  // From above, the camera's right is down.
  const across = (rightCm: number) => middleY + (rightCm - camera.offsetCm) * scale;
  const shown = (cm: number) => spaceText(Math.round(cm), units);
  const ray = (deg: number) => Math.tan((deg * Math.PI) / 180) * (camera.distanceCm + room.farCm);
  const cameraX = x(camera.distanceCm);
  return {
    room,
    placing,
    camera,
    tape,
    teacherRoom,
    filming,
    x,
    floorY,
    up,
    across,
    shown,
    ray,
    cameraX,
    scale,
  };
}

export type Drawn = ReturnType<typeof layOutDrawing>;
