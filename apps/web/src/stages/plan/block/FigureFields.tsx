import { figureOf, figuresOf, readFigure, writeFigure, type Block } from '@zest/core/lesson';
import { useContext, type KeyboardEvent } from 'react';
import { LengthField, WholeField } from '../../../ui/fields.tsx';
import { ThingMark } from '../../../ui/pictograms.tsx';
import { useChange } from '../../../ui/use-change.ts';
import { SetFigureFocus, useToggleLock } from './figure-focus.ts';

/** One figure of a block; nothing where the block does not have it as it stands. */
export function FigureField({ block, figureKey }: { block: Block; figureKey: string }) {
  const change = useChange(block);
  const toggleLock = useToggleLock(block);
  const setFocus = useContext(SetFigureFocus);
  const figure = figureOf(block, figureKey);
  if (!figure) return null;
  const isLocked = block.locked.includes(figure.key);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.code !== 'KeyL' || !event.altKey || !figure.fit) return;
    event.preventDefault();
    toggleLock(figure);
  };
  const Field = figure.unit === 'ms' ? LengthField : WholeField;
  return (
    <span
      className={isLocked ? 'block-figure is-locked' : 'block-figure'}
      onKeyDown={onKeyDown}
      onFocus={() => setFocus({ blockId: block.id, key: figure.key })}
      onBlur={() => setFocus(null)}
    >
      <Field
        label={figure.label}
        value={readFigure(block, figure.key)}
        range={figure.range}
        onChange={(value) => change(figure.label, (d) => writeFigure(d, figure.key, value))}
      />
      {isLocked && <ThingMark of="lock" size={12} />}
    </span>
  );
}

/** The block's figures of these keys, as far as it has them as it stands. */
export function FigureFields({ block, keys }: { block: Block; keys: readonly string[] }) {
  return figuresOf(block)
    .filter(({ key }) => keys.includes(key))
    .map(({ key }) => <FigureField key={key} block={block} figureKey={key} />);
}
