import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import DragIndicatorIcon from '@mui/icons-material/DragIndicator';
import type { Block } from '@zest/core/lesson';
import { shortForm, type ScheduledBlock } from '@zest/core/schedule';
import { clockText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { sortable } from '../../../ui/dragging.ts';
import { memo, useEffect, useRef } from 'react';
import { EffortMark, KindMark, ThingMark } from '../../../ui/pictograms.tsx';
import { HEAD, OPENER } from './block-keys.ts';
import '../../../ui/unseen.css';
import './sheet.css';

interface BlockLineProps {
  planned: ScheduledBlock;
  /** How long the longest block is: the bars are to this scale. */
  longestMs: number;
  isOpen: boolean;
  isChosen: boolean;
  onOpen: (blockId: string) => void;
  /** With `reach`, all from the last one chosen to this one. */
  onChoose: (blockId: string, reach: boolean) => void;
}

const isBySide = (block: Block): boolean =>
  (block.kind === 'reps' || block.kind === 'hold'
    ? block.sides !== 'both'
    : block.kind === 'intervals' && block.exercises.some(({ sides }) => sides !== 'both')) ||
  (block.kind === 'routine' && block.combination?.sides === 'each');

type Mark = 'sides' | 'kit' | 'caution' | 'levels';

/** What of a block is to be seen in its line. */
function marksOf(block: Block): Mark[] {
  const marks: [Mark, boolean][] = [
    ['sides', isBySide(block)],
    ['kit', block.kit.length > 0],
    ['caution', block.cautions.length > 0],
    ['levels', block.levels.length > 0],
  ];
  return marks.filter(([, has]) => has).map(([thing]) => thing);
}

type Grip = Pick<
  ReturnType<typeof useSortable>,
  'attributes' | 'listeners' | 'setActivatorNodeRef'
>;

/** What stands in a block's line. Drawn anew only when something of it has changed. */
const LineContent = memo(
  function LineContent({
    planned,
    longestMs,
    isOpen,
    isChosen,
    onOpen,
    onChoose,
    attributes,
    listeners,
    setActivatorNodeRef,
  }: BlockLineProps & Grip) {
    const { block } = planned;
    const marks = marksOf(block);
    return (
      <div
        className={`sheet-line${isOpen ? ' is-open' : ''}${isChosen ? ' is-chosen' : ''}`}
        {...{ [HEAD]: block.id }}
      >
        <span className="sheet-hold">
          <button
            type="button"
            ref={setActivatorNodeRef}
            {...attributes}
            {...listeners}
            className="sheet-grip"
            data-grip
            aria-label={teacherText('sheet.carry', { title: block.title })}
          >
            <DragIndicatorIcon fontSize="small" />
          </button>
          <input
            type="checkbox"
            className="sheet-choose"
            checked={isChosen}
            aria-label={teacherText('sheet.choose', { title: block.title })}
            onChange={() => undefined}
            onClick={(event) => onChoose(block.id, event.shiftKey)}
          />
        </span>
        <button
          type="button"
          className="sheet-open"
          {...{ [OPENER]: '' }}
          aria-expanded={isOpen}
          onClick={(event) =>
            event.ctrlKey || event.metaKey || event.shiftKey
              ? onChoose(block.id, event.shiftKey)
              : onOpen(block.id)
          }
        >
          <h3 className="sheet-title">{block.title || teacherText('untitled')}</h3>
          <span className="sheet-time">{clockText(planned.startMs)}</span>
          <span className="sheet-kind-mark">
            <KindMark kind={block.kind} />
          </span>
          <span className="sheet-short">{shortForm(block)}</span>
          <span className="sheet-marks">
            {marks.map((thing) => (
              <ThingMark key={thing} of={thing} size={14} />
            ))}
          </span>
          <EffortMark effort={block.effort} />
          <span className="sheet-length">{clockText(planned.durationMs)}</span>
          <span className="unseen">
            {marks.map((thing) => teacherText(`mark.${thing}`)).join(', ')}
            {teacherText('sheet.effort', { effort: block.effort })}
          </span>
        </button>
        <span
          className="sheet-bar"
          style={{ width: `${(planned.durationMs / Math.max(1, longestMs)) * 100}%` }}
        />
      </div>
    );
  },
  (was, is) =>
    was.planned.block === is.planned.block &&
    was.planned.startMs === is.planned.startMs &&
    was.planned.durationMs === is.planned.durationMs &&
    was.longestMs === is.longestMs &&
    was.isOpen === is.isOpen &&
    was.isChosen === is.isChosen &&
    was.onOpen === is.onOpen &&
    was.onChoose === is.onChoose &&
    was.attributes === is.attributes &&
    was.listeners === is.listeners,
);

/**
 * A block as one line of the run sheet. Carrying turns only this frame, not what is in it.
 */
export function BlockLine(props: BlockLineProps) {
  const { isOpen, planned } = props;
  const place = useRef<HTMLDivElement | null>(null);
  const {
    attributes,
    listeners,
    setNodeRef,
    setActivatorNodeRef,
    transform,
    transition,
    isDragging,
  } = useSortable({ id: planned.block.id, attributes: sortable });
  // Chosen on the ribbon, the block comes into view; one already in view stays where it is.
  useEffect(() => {
    if (isOpen) place.current?.scrollIntoView({ block: 'nearest' });
  }, [isOpen]);
  return (
    <div
      ref={(node) => {
        place.current = node;
        setNodeRef(node);
      }}
      className="sheet-place"
      style={{
        transform: CSS.Translate.toString(transform),
        transition: transition ?? undefined,
        ...(isDragging && { opacity: 0.5, zIndex: 1 }),
      }}
    >
      <LineContent
        {...props}
        attributes={attributes}
        listeners={listeners}
        setActivatorNodeRef={setActivatorNodeRef}
      />
    </div>
  );
}
