import { LIMITS, type Filming } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useRef } from 'react';
import type { Drawn, Stand } from './drawing-layout.ts';
import { Handle, type Way } from './Handle.tsx';

const between = (value: number, { min, max }: { min: number; max: number }) =>
  Math.min(max, Math.max(min, Math.round(value)));

/** The stand nearest to a distance. */
const nearest = (stands: readonly Stand[], cm: number): Stand | undefined =>
  [...stands].sort((a, b) => Math.abs(a.distanceCm - cm) - Math.abs(b.distanceCm - cm))[0];

interface FramingHandlesProps {
  drawn: Drawn;
  stands: readonly Stand[];
  onHold: (scale: number | null) => void;
  onChange: (label: string, change: (filming: Filming) => void) => void;
}

/** What a handle makes of what is set now: keys may come faster than the drawing follows. */
type Next = (now: number) => number;

/** How camera, performer and room are changed; the camera along its lenses, or freely if set so. */
function handleChanges(
  drawn: Drawn,
  stands: readonly Stand[],
  onChange: FramingHandlesProps['onChange'],
) {
  const setLens = (lensMm: number | undefined) =>
    lensMm !== undefined &&
    lensMm !== drawn.filming.lensMm &&
    onChange(teacherText('setup.lens'), (f) => void (f.lensMm = lensMm));
  const setAway = (cm: number) =>
    onChange(
      teacherText('setup.distance-from-camera'),
      (f) => void (f.awayCm = between(cm, LIMITS.cameraAwayCm)),
    );
  const stepAway = (right: number) =>
    onChange(teacherText('setup.camera'), (f) => {
      if (f.awayCm !== undefined) f.awayCm = between(f.awayCm + 10 * right, LIMITS.cameraAwayCm);
      else {
        const at = stands.findIndex(({ lensMm }) => lensMm === f.lensMm);
        f.lensMm = stands[at < 0 ? 0 : at + right]?.lensMm ?? f.lensMm;
      }
    });
  const setHeight = (next: Next | null) =>
    onChange(
      teacherText('setup.camera-height'),
      (f) =>
        void (f.cameraCm =
          next && between(next(f.cameraCm ?? drawn.camera.heightCm), LIMITS.cameraCm)),
    );
  const setPerformer = (next: Next) =>
    onChange(
      teacherText('setup.performer'),
      (f) => void (f.performerCm = between(next(f.performerCm), LIMITS.performerCm)),
    );
  const setRoom = (side: keyof NonNullable<Filming['room']>, next: Next) =>
    onChange(
      teacherText('setup.room'),
      (f) => void (f.room && (f.room[side] = between(next(f.room[side]), LIMITS.sideCm))),
    );
  return { setLens, setAway, stepAway, setHeight, setPerformer, setRoom };
}

/** What is taken hold of: camera, the performer's head, and the walls of the room. */
export function FramingHandles({ drawn, stands, onHold, onChange }: FramingHandlesProps) {
  const { camera, filming, scale, x, up, across, shown, teacherRoom, floorY } = drawn;
  const from = useRef({ camera, filming });
  const hold = {
    onGrab: () => {
      from.current = { camera, filming };
      onHold(scale);
    },
    onDrop: () => onHold(null),
  };
  const isAwaySet = filming.awayCm !== undefined;
  const { setLens, setAway, stepAway, setHeight, setPerformer, setRoom } = handleChanges(
    drawn,
    stands,
    onChange,
  );
  const wall = (
    side: keyof NonNullable<Filming['room']>,
    place: { x: number; y: number },
    /** So many centimetres for each way it is dragged. */
    grows: (way: Way) => number,
  ) =>
    teacherRoom && (
      <Handle
        key={side}
        {...place}
        {...hold}
        name={teacherText(`setup.${side}`)}
        value={shown(teacherRoom[side])}
        now={teacherRoom[side]}
        range={LIMITS.sideCm}
        cursor={side === 'depthCm' ? 'ew-resize' : 'ns-resize'}
        onDrag={(way) =>
          setRoom(side, () => (from.current.filming.room?.[side] ?? 0) + grows(way) / scale)
        }
        onStep={(way) => setRoom(side, (now) => now + 10 * Math.sign(grows(way)))}
      />
    );
  const left = teacherRoom
    ? x(-drawn.room.farCm) - Math.max(0, teacherRoom.depthCm - drawn.placing.depthCm) * scale
    : 0;
  return (
    <>
      <Handle
        x={drawn.cameraX}
        y={up(camera.heightCm)}
        {...hold}
        name={teacherText('setup.camera')}
        value={teacherText('setup.camera-at', {
          distance: shown(camera.distanceCm),
          height: shown(camera.heightCm),
          lens: drawn.placing.lensMm,
        })}
        now={Math.round(camera.distanceCm)}
        range={
          isAwaySet
            ? LIMITS.cameraAwayCm
            : { min: 0, max: Math.round(stands.at(-1)?.distanceCm ?? camera.distanceCm) }
        }
        cursor="move"
        onDrag={({ right, down }) => {
          const { camera: was } = from.current;
          const awayCm = was.distanceCm + right / scale;
          if (isAwaySet) setAway(awayCm);
          else setLens(nearest(stands, awayCm)?.lensMm);
          const heightCm = Math.round((was.heightCm - down / scale) / 5) * 5;
          if (filming.cameraCm !== null || Math.abs(heightCm - was.heightCm) > 10)
            setHeight(() => heightCm);
        }}
        onStep={({ right, down }) =>
          right === 0 ? setHeight((now) => Math.round(now / 5) * 5 - 5 * down) : stepAway(right)
        }
        onReset={() => setHeight(null)}
      />
      <Handle
        x={x(0)}
        y={up(filming.performerCm)}
        {...hold}
        name={teacherText('setup.performer')}
        value={shown(filming.performerCm)}
        now={filming.performerCm}
        range={LIMITS.performerCm}
        cursor="ns-resize"
        onDrag={({ down }) => setPerformer(() => from.current.filming.performerCm - down / scale)}
        onStep={({ right, down }) => setPerformer((now) => now + right - down)}
      />
      {teacherRoom && (
        <>
          {wall('heightCm', { x: left + 40, y: up(teacherRoom.heightCm) }, ({ right, down }) =>
            right === 0 ? -down : right,
          )}
          {wall('depthCm', { x: left, y: floorY - 40 }, ({ right, down }) =>
            right === 0 ? -down : -right,
          )}
          {wall(
            'widthCm',
            { x: left + 40, y: across(camera.offsetCm) - (teacherRoom.widthCm / 2) * scale },
            ({ right, down }) => (right === 0 ? -2 * down : 2 * right),
          )}
        </>
      )}
    </>
  );
}
