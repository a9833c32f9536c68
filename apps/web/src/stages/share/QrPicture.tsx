import { Box } from '@mui/material';
import { qrPath } from '@zest/core/formats';
import { useMemo } from 'react';

/** A link as a QR code, to be held up to a camera. */
export function QrPicture({ text, label, size }: { text: string; label: string; size: number }) {
  const code = useMemo(() => qrPath(text), [text]);
  return (
    <Box
      component="svg"
      role="img"
      aria-label={label}
      viewBox={`0 0 ${code.size} ${code.size}`}
      shapeRendering="crispEdges"
      sx={{ width: size, height: size, flex: 'none', bgcolor: '#fff', borderRadius: 1 }}
    >
      <path d={code.path} fill="#000" />
    </Box>
  );
}
