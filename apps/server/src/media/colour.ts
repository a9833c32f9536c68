import type { VideoFacts } from './probe.ts';

/**
 * Light of reference white in cd/m² (ITU-R BT.2408), which is brought to the white of the picture
 * before highlights are fitted in.
 */
const WHITE = 203;
/** The brightest light that is kept, in cd/m²; what is brighter is as bright. */
const BRIGHTEST = 1_000;
/**
 * Up to this part of reference white nothing changes; above it light is pressed together along a
 * Möbius curve, so that the brightest is just white.
 */
const UNCHANGED = 0.3;

/**
 * Transfer functions of high dynamic range: hybrid log-gamma and perceptual quantizer (ITU-R
 * BT.2100).
 */
const HIGH_RANGE = new Set(['arib-std-b67', 'smpte2084']);
/**
 * Primaries close enough to those of BT.709 to be taken for them: SD's differ by less than a cheap
 * screen does.
 */
const NARROW = new Set(['bt709', 'smpte170m', 'bt470bg']);

const isHighRange = ({ transfer }: VideoFacts) => transfer !== null && HIGH_RANGE.has(transfer);
const isWide = ({ primaries }: VideoFacts) => primaries !== null && !NARROW.has(primaries);

/** Whether the colours are those of a working copy or near them, but for matrix and range. */
export const isPlainColour = (video: VideoFacts): boolean => !isHighRange(video) && !isWide(video);

/**
 * Filters from high dynamic range or a wide gamut to limited-range BT.709 in 8 bits, as a display
 * shows it. What a phone does not tag of its high dynamic range is BT.2020, as BT.2100 has it.
 */
export function toPlainColour(video: VideoFacts): string[] {
  const { primaries, transfer, colour, range } = video;
  const isHigh = isHighRange(video);
  const tags =
    `setparams=color_primaries=${primaries ?? 'bt2020'}:color_trc=` +
    `${transfer ?? 'bt709'}:colorspace=${colour ?? (isHigh ? 'bt2020nc' : 'bt709')}` +
    `:range=${range ?? 'tv'}`;
  if (!isHigh) return [tags, 'zscale=p=bt709:t=bt709:m=bt709:r=limited', 'format=yuv420p'];
  return [
    ...[tags, `zscale=t=linear:npl=${WHITE}:p=bt709:agamma=false`, 'format=gbrpf32le'],
    ...[
      `tonemap=mobius:param=${UNCHANGED}:desat=0:peak=${BRIGHTEST / WHITE}`,
      'zscale=t=bt709:m=bt709:r=limited',
      'format=yuv420p',
    ],
  ];
}
