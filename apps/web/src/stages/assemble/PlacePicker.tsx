import { Box } from '@mui/material';
import { useRef, useState, type PointerEvent } from 'react';

export interface PickedBox {
  x: number;
  y: number;
  width: number;
  height: number;
}

interface PlacePickerProps {
  /** A single place, or a box that is drawn. */
  shape: 'point' | 'box';
  /** What is chosen so far, in thousandths of the frame as it is seen. */
  value: PickedBox | null;
  onPick: (box: PickedBox) => void;
}

const thousandth = (part: number) => Math.round(Math.min(1, Math.max(0, part)) * 1_000);

/** Lies over the picture while a place is chosen on it. */
export function PlacePicker({ shape, value, onPick }: PlacePickerProps) {
  const place = useRef<HTMLDivElement>(null);
  const [from, setFrom] = useState<{ x: number; y: number } | null>(null);
  const at = (event: PointerEvent) => {
    const { left, top, width, height } = place.current?.getBoundingClientRect() ?? {
      left: 0,
      top: 0,
      width: 1,
      height: 1,
    };
    return {
      x: thousandth((event.clientX - left) / width),
      y: thousandth((event.clientY - top) / height),
    };
  };
  const drawn = (a: { x: number; y: number }, b: { x: number; y: number }): PickedBox => ({
    x: Math.min(a.x, b.x),
    y: Math.min(a.y, b.y),
    width: Math.abs(a.x - b.x),
    height: Math.abs(a.y - b.y),
  });
  return (
    <Box
      ref={place}
      data-testid="place-picker"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        const start = at(event);
        setFrom(start);
        if (shape === 'point') onPick({ ...start, width: 0, height: 0 });
      }}
      onPointerMove={(event) => {
        if (!from) return;
        onPick(shape === 'point' ? { ...at(event), width: 0, height: 0 } : drawn(from, at(event)));
      }}
      onPointerUp={() => setFrom(null)}
      sx={{
        position: 'absolute',
        inset: 0,
        cursor: 'crosshair',
        touchAction: 'none',
        outline: '3px dashed #ffb454',
        outlineOffset: '-3px',
        zIndex: 3,
      }}
    >
      {value && (
        <Box
          sx={
            shape === 'point'
              ? {
                  position: 'absolute',
                  left: `${value.x / 10}%`,
                  top: `${value.y / 10}%`,
                  width: 26,
                  height: 26,
                  ml: '-13px',
                  mt: '-13px',
                  borderRadius: '50%',
                  border: '4px solid #ffb454',
                  boxShadow: '0 0 0 2px #26211c',
                }
              : {
                  position: 'absolute',
                  left: `${value.x / 10}%`,
                  top: `${value.y / 10}%`,
                  width: `${value.width / 10}%`,
                  height: `${value.height / 10}%`,
                  border: '3px solid #ffb454',
                  boxShadow: '0 0 0 2px #26211c',
                  bgcolor: 'rgb(255 180 84 / 0.18)',
                }
          }
        />
      )}
    </Box>
  );
}
