import { FormControlLabel, Stack, Switch } from '@mui/material';
import { LIMITS, type Block } from '@zest/core/lesson';
import { TextLine } from '../../ui/fields.tsx';
import { FigureFields } from './FigureFields.tsx';
import { useChange } from '../../ui/use-change.ts';

/** "Stop the video and practise" after a block. */
export function PauseFigures({ block }: { block: Block }) {
  const change = useChange(block);
  const pause = block.pauseAfter;
  return (
    <Stack spacing={2}>
      <FormControlLabel
        label="Afterwards the student stops the video and practises"
        control={
          <Switch
            checked={pause !== null}
            onChange={(_event, on) =>
              change(
                'Pause',
                (d) =>
                  void (d.pauseAfter = on
                    ? { practiceMs: 120_000, signMs: 5_000, prompt: '' }
                    : null),
                false,
              )
            }
          />
        }
      />
      {pause && (
        <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2 }}>
          <FigureFields block={block} keys={['pauseAfter.practiceMs', 'pauseAfter.signMs']} />
          <TextLine
            label="What to practise"
            value={pause.prompt}
            most={LIMITS.line}
            sx={{ flex: '1 1 260px' }}
            onChange={(text) =>
              change('What to practise', (d) => void (d.pauseAfter && (d.pauseAfter.prompt = text)))
            }
          />
        </Stack>
      )}
    </Stack>
  );
}
