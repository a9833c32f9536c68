import { Box } from '@mui/material';
import { toBlock, type Assembly } from '@zest/core/assembly';
import { findBlock, type Lesson } from '@zest/core/lesson';
import { indexAt, type Box as Area } from '@zest/core/overlay';
import { timeBlock } from '@zest/core/schedule';
import { takeUrl } from '../app/take-url.ts';
import { useCallback, useMemo } from 'react';
import { BlockOverlay } from './BlockOverlay.tsx';
import { Filmed } from './Filmed.tsx';
import { StageFrame } from './StageFrame.tsx';
import { StandIn } from './StandIn.tsx';
import { within } from './within.ts';
import './moment.css';

interface MomentProps {
  lesson: Lesson;
  /** Its cut, whole. */
  cut: Assembly;
  /** Of the video. */
  atMs: number;
  /** What is outlined, in layout units. */
  boxes: readonly Area[];
  label: string;
}

/** Whether footage is shown at a moment of a cut. */
export const showsFootage = ({ segments }: Assembly, atMs: number): boolean =>
  segments[indexAt(segments, atMs)]?.source.kind === 'take';

/** The lesson as students see it at one moment, standing still. */
export function Moment({ lesson, cut, atMs, boxes, label }: MomentProps) {
  const placed = cut.blocks.find(({ startMs, endMs }) => startMs <= atMs && atMs < endMs);
  const block = placed && findBlock(lesson, placed.blockId);
  const isFilmed = showsFootage(cut, atMs);
  const isCard = block?.kind === 'card' || block?.kind === 'question' || !block;
  const spans = useMemo(() => (block ? timeBlock(block, lesson).spans : []), [block, lesson]);
  const momentMs = useCallback(() => atMs, [atMs]);
  const ownMs = useCallback(() => (placed ? toBlock(placed.timeMap, atMs) : 0), [placed, atMs]);
  return (
    <StageFrame label={label}>
      {isFilmed ? (
        <Filmed takeUrl={takeUrl} cut={cut} momentMs={momentMs} isPlaying={false} speed={1} />
      ) : (
        !isCard && <StandIn spans={spans} momentMs={ownMs} />
      )}
      <BlockOverlay cut={cut} momentMs={momentMs} withCard={isCard} />
      {boxes.map((box, i) => (
        <Box key={i} className="moment-outline" style={within(box)} />
      ))}
    </StageFrame>
  );
}
