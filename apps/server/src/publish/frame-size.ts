/** Pixels of a picture; both even. */
export interface FrameSize {
  width: number;
  height: number;
}
