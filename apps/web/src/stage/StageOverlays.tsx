import { IconButton, Tooltip } from '@mui/material';
import ResetIcon from '@mui/icons-material/RestartAlt';
import type { Assembly } from '@zest/core/assembly';
import {
  allCues,
  findBlock,
  LIMITS,
  overlaySlots,
  type Block,
  type EditOf,
  type Lesson,
} from '@zest/core/lesson';
import { REFERENCE, SAFE_AREA, sceneAt, type Box, type SceneItem } from '@zest/core/overlay';
import { teacherText } from '@zest/core/words';
import { useId, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { edit } from '../app/lesson-slice.ts';
import { useAppDispatch } from '../app/store.ts';
import { useBlockNow } from '../app/use-lesson.ts';
import { TextLine } from '../ui/fields.tsx';
import { slotName, type OverlaySlot } from '../ui/slot-name.ts';
import { useChange } from '../ui/use-change.ts';
import '../ui/unseen.css';
import { within } from './within.ts';
import './overlays.css';

type Held = SceneItem & { slot: OverlaySlot };
const isHeld = (item: SceneItem): item is Held => overlaySlots.some((slot) => slot === item.slot);

/** What an arrow key moves it by, in layout units; with Shift further. */
const KEY_STEP = 12;
const FAR = 5;
const SIZE_STEP = 5;

const between = (value: number, least: number, most: number) =>
  Math.min(most, Math.max(least, value));
const thousandth = (units: number, of: number) => Math.round((units / of) * 1_000);

const placeOfBlock = (block: Block | undefined, slot: OverlaySlot) =>
  block?.edits.find((one): one is EditOf<'place'> => one.kind === 'place' && one.slot === slot);

/** The place of a box whose left upper corner is here, in thousandths, inside the safe area. */
const placeAt = ({ width, height }: Box, x: number, y: number) => ({
  x: thousandth(between(x, SAFE_AREA.x, SAFE_AREA.x + SAFE_AREA.width - width), REFERENCE.width),
  y: thousandth(between(y, SAFE_AREA.y, SAFE_AREA.y + SAFE_AREA.height - height), REFERENCE.height),
});

/** Moves and sizes overlays: in the whole lesson, or in the block where it has a place of its own. */
function useSlot({ id: blockId }: Block, lesson: Lesson, slot: OverlaySlot) {
  const dispatch = useAppDispatch();
  const { size, place } = lesson.finish.look.slots[slot];
  const name = slotName(slot);
  const ownOf = (of: Lesson) => placeOfBlock(findBlock(of, blockId), slot);
  const put = (to: (was: { x: number; y: number } | null) => { x: number; y: number }) =>
    dispatch(
      edit(
        teacherText('overlay.place', { name }),
        (draft) => {
          const own = ownOf(draft);
          const style = draft.finish.look.slots[slot];
          if (own) Object.assign(own, to(own));
          else style.place = to(style.place);
        },
        true,
      ),
    );
  const resize = (to: (was: number) => number) =>
    dispatch(
      edit(
        teacherText('overlay.size', { name }),
        (draft) => {
          const style = draft.finish.look.slots[slot];
          const { min, max } = LIMITS.slotSize;
          style.size = between(Math.round(to(style.size) / SIZE_STEP) * SIZE_STEP, min, max);
        },
        true,
      ),
    );
  return {
    size,
    isByHand: place !== null || ownOf(lesson) !== undefined,
    moveTo: (box: Box, x: number, y: number) => put(() => placeAt(box, x, y)),
    /** From where it stands by now, which may be newer than what is drawn. */
    moveBy: (box: Box, right: number, down: number) =>
      put((was) =>
        placeAt(
          box,
          (was ? (was.x / 1_000) * REFERENCE.width : box.x) + right,
          (was ? (was.y / 1_000) * REFERENCE.height : box.y) + down,
        ),
      ),
    sizeTo: (percent: number) => resize(() => percent),
    sizeBy: (percent: number) => resize((was) => was + percent),
    putBack: () =>
      dispatch(
        edit(teacherText('overlay.place', { name }), (draft) => {
          draft.finish.look.slots[slot].place = null;
          const now = findBlock(draft, blockId);
          const own = ownOf(draft);
          if (now && own) now.edits = now.edits.filter((one) => one !== own);
        }),
      ),
  };
}

/** Words of the block that an overlay shows and that can be retyped where they are seen. */
interface Words {
  most: number;
  read: (block: Block) => string;
  /** Changes them in a draft of the block. */
  write: (draft: Block, text: string) => void;
}

function wordsOf(item: Held, block: Block): Words | null {
  if (item.slot === 'cue') {
    const id = allCues(block).find(({ text }) => text === item.text)?.id;
    const cueIn = (of: Block) => allCues(of).find((cue) => cue.id === id);
    if (id === undefined) return null;
    return {
      most: LIMITS.line,
      read: (now) => cueIn(now)?.text ?? '',
      write: (draft, text) => {
        const cue = cueIn(draft);
        if (cue) cue.text = text;
      },
    };
  }
  const at = item.slot === 'caution' ? block.cautions.indexOf(item.text) : -1;
  if (at < 0) return null;
  return {
    most: LIMITS.line,
    read: (now) => now.cautions[at] ?? '',
    write: (draft, text) => void (draft.cautions[at] = text),
  };
}

interface RetypedProps {
  words: Words;
  slot: OverlaySlot;
  box: Box;
  block: Block;
  onDone: () => void;
}

/** The words of an overlay, typed where they are seen. */
function Retyped({ words, slot, box, block: shown, onDone }: RetypedProps) {
  // What is drawn may be a moment old; what is typed never is.
  const block = useBlockNow(shown);
  const change = useChange(block);
  const label = teacherText('overlay.words', { name: slotName(slot) });
  return (
    <div
      className="stage-words"
      style={within(box)}
      ref={(node) => node?.querySelector('input')?.focus()}
      onBlur={onDone}
      onKeyDown={(event) => event.key === 'Escape' && onDone()}
    >
      <TextLine
        label={label}
        value={words.read(block)}
        most={words.most}
        onEnter={onDone}
        onChange={(text) => change(label, (draft) => words.write(draft, text))}
      />
    </div>
  );
}

interface OverlayProps {
  item: Held;
  block: Block;
  lesson: Lesson;
  /** Units of the layout a pixel is. */
  perPx: () => number;
  onBusy: (isBusy: boolean) => void;
}

/** An overlay one takes hold of: it is moved, sized, and its words are retyped. */
function Overlay({ item, block, lesson, perPx, onBusy }: OverlayProps) {
  const { box, slot } = item;
  const { size, isByHand, moveTo, moveBy, sizeTo, sizeBy, putBack } = useSlot(block, lesson, slot);
  const held = useRef<{
    x: number;
    y: number;
    box: Box;
    size: number;
    what: 'place' | 'size';
  } | null>(null);
  // Kept while they are typed: the overlay may show something else meanwhile.
  const [typed, setTyped] = useState<Words | null>(null);
  const hint = useId();
  const words = wordsOf(item, block);
  const begin = (event: PointerEvent, what: 'place' | 'size') => {
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = { x: event.clientX, y: event.clientY, box, size, what };
  };
  const move = ({ clientX, clientY }: PointerEvent) => {
    if (!held.current) return;
    const { x, y, box: was, size: before, what } = held.current;
    const [right, down] = [(clientX - x) * perPx(), (clientY - y) * perPx()];
    if (right === 0 && down === 0) return;
    onBusy(true);
    if (what === 'place') moveTo(was, was.x + right, was.y + down);
    else sizeTo((before * (was.width + right)) / was.width);
  };
  const end = () => {
    held.current = null;
    onBusy(false);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = KEY_STEP * (event.shiftKey ? FAR : 1);
    const [right, down] =
      { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[
        event.key
      ] ?? [];
    if (right !== undefined && down !== undefined) moveBy(box, right, down);
    else if (event.key === '+' || event.key === '=') sizeBy(SIZE_STEP);
    else if (event.key === '-') sizeBy(-SIZE_STEP);
    else if (event.key === 'Delete' || event.key === 'Backspace') putBack();
    else if (event.key === 'Enter' && words) setTyped(words);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const drag = { onPointerMove: move, onPointerUp: end, onPointerCancel: end };
  if (typed)
    return (
      <Retyped words={typed} slot={slot} box={box} block={block} onDone={() => setTyped(null)} />
    );
  return (
    <div className="stage-overlay" style={within(box)}>
      <div
        className="stage-grip"
        role="button"
        tabIndex={0}
        aria-label={teacherText('overlay.held', { name: slotName(slot) })}
        aria-describedby={hint}
        onKeyDown={onKeyDown}
        onDoubleClick={() => words && setTyped(words)}
        onPointerDown={(event) => begin(event, 'place')}
        {...drag}
      >
        <span id={hint} className="unseen">
          {teacherText(words ? 'overlay.keys-words' : 'overlay.keys')}
        </span>
      </div>
      <span
        className="stage-size"
        aria-hidden="true"
        onPointerDown={(event) => begin(event, 'size')}
        {...drag}
      />
      {isByHand && (
        <Tooltip title={teacherText('overlay.back')}>
          <IconButton
            size="small"
            className="stage-back"
            aria-label={teacherText('overlay.back-of', { name: slotName(slot) })}
            onClick={putBack}
          >
            <ResetIcon fontSize="small" />
          </IconButton>
        </Tooltip>
      )}
    </div>
  );
}

interface StageOverlaysProps {
  lesson: Lesson;
  block: Block;
  cut: Assembly;
  /** The moment of the block that is shown. */
  shownMs: number;
}

/** Takes hold of what stands over the picture; while it is moved, where it may stand is seen. */
export function StageOverlays({ lesson, block, cut, shownMs }: StageOverlaysProps) {
  const place = useRef<HTMLDivElement>(null);
  const [isBusy, setBusy] = useState(false);
  if (shownMs >= cut.durationMs) return null;
  const items = sceneAt(cut, shownMs).items.filter(isHeld);
  const perPx = () => REFERENCE.width / Math.max(1, place.current?.clientWidth ?? 1);
  return (
    <div ref={place} className={`stage-overlays${isBusy ? ' is-busy' : ''}`}>
      <div className="stage-safe" style={within(SAFE_AREA)} aria-hidden="true">
        <span>{teacherText('overlay.safe')}</span>
      </div>
      {items.map((item) => (
        <Overlay
          key={item.slot}
          item={item}
          block={block}
          lesson={lesson}
          perPx={perPx}
          onBusy={setBusy}
        />
      ))}
    </div>
  );
}
