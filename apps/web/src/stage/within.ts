import { REFERENCE, type Box } from '@zest/core/overlay';

/** A box of layout units within the picture, wherever that is shown how large. */
export const within = ({ x, y, width, height }: Box) => ({
  left: `${(x / REFERENCE.width) * 100}%`,
  top: `${(y / REFERENCE.height) * 100}%`,
  width: `${(width / REFERENCE.width) * 100}%`,
  height: `${(height / REFERENCE.height) * 100}%`,
});
