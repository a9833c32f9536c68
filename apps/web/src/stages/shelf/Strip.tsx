import type { LessonSummary } from '@zest/contract';
import { KindMark } from '../../ui/pictograms.tsx';

const EFFORT_FILL = ['#f3ddbd', '#ebc793', '#e0a962', '#cf8538', '#b0621a'];
/** From this height on the kinds are seen. */
const MARKS_FROM_PX = 20;

interface StripProps {
  blocks: LessonSummary['portrait']['strip'];
  height: number;
}

/** A lesson's blocks to scale, as dark as each is hard. */
export function Strip({ blocks, height }: StripProps) {
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
            ...{ display: 'grid', placeItems: 'center', overflow: 'hidden', color: '#2a2016' },
            background: EFFORT_FILL[effort - 1],
          }}
        >
          {height >= MARKS_FROM_PX && ms > wholeMs / 12 && <KindMark kind={kind} size={16} />}
        </span>
      ))}
    </span>
  );
}
