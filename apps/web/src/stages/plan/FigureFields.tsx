import { IconButton, InputAdornment, Tooltip } from '@mui/material';
import LockIcon from '@mui/icons-material/Lock';
import LockOpenIcon from '@mui/icons-material/LockOpenOutlined';
import { figuresOf, readFigure, writeFigure, type Block, type Figure } from '@zest/core/lesson';
import { LengthField, WholeField } from '../../ui/fields.tsx';
import { useChange } from '../../ui/use-change.ts';

/** A locked figure keeps its value when the lesson is fitted to its slot. */
function FitLock({ block, figure }: { block: Block; figure: Figure }) {
  const change = useChange(block);
  const isLocked = block.locked.includes(figure.key);
  const words = isLocked
    ? `${figure.label} is locked: fitting leaves it alone`
    : `Lock ${figure.label.toLowerCase()} against fitting`;
  const toggle = () =>
    change(
      `Lock of ${figure.label.toLowerCase()}`,
      (d) =>
        void (d.locked = isLocked
          ? d.locked.filter((key) => key !== figure.key)
          : [...d.locked, figure.key]),
      false,
    );
  return (
    <InputAdornment position="end">
      <Tooltip title={words}>
        <IconButton
          size="small"
          edge="end"
          aria-label={words}
          aria-pressed={isLocked}
          onClick={toggle}
        >
          {isLocked ? (
            <LockIcon fontSize="inherit" />
          ) : (
            <LockOpenIcon fontSize="inherit" sx={{ opacity: 0.55 }} />
          )}
        </IconButton>
      </Tooltip>
    </InputAdornment>
  );
}

function FigureField({ block, figure }: { block: Block; figure: Figure }) {
  const change = useChange(block);
  const Field = figure.unit === 'ms' ? LengthField : WholeField;
  return (
    <Field
      label={figure.label}
      value={readFigure(block, figure.key)}
      range={figure.range}
      sx={{ width: Math.max(150, 70 + figure.label.length * 8) }}
      end={figure.fit && <FitLock block={block} figure={figure} />}
      onChange={(value) => change(figure.label, (d) => writeFigure(d, figure.key, value))}
    />
  );
}

/**
 * The block's figures of these keys, or all but those of its lists when none are named. Figures it
 * does not have as it stands are left out.
 */
export function FigureFields({ block, keys }: { block: Block; keys?: readonly string[] }) {
  const figures = figuresOf(block).filter(({ key }) =>
    keys ? keys.includes(key) : !/\d|^demo|^parts|^pauseAfter|^floor/.test(key),
  );
  return figures.map((figure) => <FigureField key={figure.key} block={block} figure={figure} />);
}
