import { FormControlLabel, Stack, Switch } from '@mui/material';
import { LIMITS, type TalkBlock } from '@zest/core/lesson';
import { speechMs } from '@zest/core/schedule';
import { useOpenLesson } from '../../app/use-lesson.ts';
import { LengthField } from '../../ui/fields.tsx';
import { useChange } from './use-change.ts';

export function TalkFigures({ block }: { block: TalkBlock }) {
  const change = useChange(block);
  const { speechWpm } = useOpenLesson().lesson.settings;
  const spokenMs = Math.max(LIMITS.fixedMs.min, speechMs(block.script, speechWpm));
  return (
    <Stack direction="row" spacing={2} sx={{ alignItems: 'center' }}>
      <FormControlLabel
        label="As long as the words take"
        control={
          <Switch
            checked={block.fixedMs === null}
            onChange={(_event, asSpoken) => change('Length', (d) => void (d.fixedMs = asSpoken ? null : spokenMs), false)}
          />
        }
      />
      {block.fixedMs !== null && (
        <LengthField label="Length" value={block.fixedMs} range={LIMITS.fixedMs} onChange={(ms) => change('Length', (d) => void (d.fixedMs = ms))} />
      )}
    </Stack>
  );
}
