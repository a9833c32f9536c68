import type { LessonSummary } from '@zest/contract';
import { EFFORT_FILL, paper } from '../../app/theme.ts';
import { KindMark } from '../../ui/pictograms.tsx';

/** From this height on the kinds are seen. */
const MARKS_FROM_PX = 20;

interface LessonStripProps {
  blocks: LessonSummary['portrait']['strip'];
  height: number;
}

/** A lesson's blocks to scale, as dark as each is hard. */
export function LessonStrip({ blocks, height }: LessonStripProps) {
  const wholeMs = blocks.reduce((sum, { ms }) => sum + ms, 0);
  return (
    <span
      aria-hidden="true"
      style={{ display: 'flex', width: '100%', height, gap: 1, overflow: 'hidden' }}
    >
      {blocks.map(({ kind, effort, ms }, i) => (
        <span
          key={i}
          style={{
            ...{ flex: `${Math.max(ms, wholeMs / 80)} 0 0`, minWidth: 2 },
            ...{ display: 'grid', placeItems: 'center', overflow: 'hidden', color: paper.ink },
            background: EFFORT_FILL[effort - 1],
          }}
        >
          {height >= MARKS_FROM_PX && ms > wholeMs / 12 && <KindMark kind={kind} size={16} />}
        </span>
      ))}
    </span>
  );
}
