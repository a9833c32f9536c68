import { Box, Button, IconButton, Stack, Typography } from '@mui/material';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import { LIMITS, type Block, type Cue } from '@zest/core/lesson';
import type { ReactNode } from 'react';
import { makeId } from '../../app/ids.ts';
import { ChoiceField, TextLine, WholeField } from '../../ui/fields.tsx';
import { useChange } from './use-change.ts';

interface RowsProps {
  title: string;
  addLabel: string;
  rows: { key: string; name: string; fields: ReactNode }[];
  most: number;
  onAdd: () => void;
  onRemove: (index: number) => void;
}

function Rows({ title, addLabel, rows, most, onAdd, onRemove }: RowsProps) {
  return (
    <Box>
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center', mb: rows.length ? 1 : 0 }}>
        <Typography variant="h3" component="h4">
          {title}
        </Typography>
        <Button size="small" onClick={onAdd} disabled={rows.length >= most}>
          {addLabel}
        </Button>
      </Stack>
      <Stack spacing={1.5}>
        {rows.map(({ key, name, fields }, i) => (
          <Stack key={key} direction="row" spacing={1.5} sx={{ alignItems: 'center' }}>
            {fields}
            <IconButton aria-label={`Remove ${name || 'this line'}`} onClick={() => onRemove(i)}>
              <DeleteOutlineIcon fontSize="small" />
            </IconButton>
          </Stack>
        ))}
      </Stack>
    </Box>
  );
}

const moments: readonly (readonly [Cue['moment'], string])[] = [
  ['ready', 'before the move'],
  ['action', 'while it runs'],
  ['finish', 'at its end'],
  ['throughout', 'all the time'],
];

export function CueList({ block }: { block: Block }) {
  const change = useChange(block);
  return (
    <Rows
      title="Cues"
      addLabel="+ Cue"
      most={LIMITS.cues}
      onAdd={() => change('Cues', (d) => void d.cues.push({ id: makeId(), text: '', moment: 'action' }), false)}
      onRemove={(i) => change('Cues', (d) => void d.cues.splice(i, 1), false)}
      rows={block.cues.map((cue, i) => ({
        key: cue.id,
        name: cue.text,
        fields: (
          <>
            <TextLine
              label={`Cue ${i + 1}`}
              value={cue.text}
              most={LIMITS.line}
              helper={cue.text.trim().split(/\s+/).length > 5 ? 'Two to five words are read best.' : undefined}
              onChange={(text) => change(`Cue ${i + 1}`, (d) => void (d.cues[i] && (d.cues[i].text = text)))}
            />
            <ChoiceField
              label="When"
              value={cue.moment}
              choices={moments}
              onChange={(moment) => change(`Moment of cue ${i + 1}`, (d) => void (d.cues[i] && (d.cues[i].moment = moment)))}
            />
          </>
        ),
      }))}
    />
  );
}

export function KitList({ block }: { block: Block }) {
  const change = useChange(block);
  return (
    <Rows
      title="Kit"
      addLabel="+ Kit"
      most={LIMITS.kit}
      onAdd={() => change('Kit', (d) => void d.kit.push({ id: makeId(), name: '', quantity: 1, standIn: '' }), false)}
      onRemove={(i) => change('Kit', (d) => void d.kit.splice(i, 1), false)}
      rows={block.kit.map((item, i) => ({
        key: item.id,
        name: item.name,
        fields: (
          <>
            <WholeField
              label="How many"
              value={item.quantity}
              range={{ min: 1, max: 99 }}
              sx={{ width: 110, flex: 'none' }}
              onChange={(n) => change('How many', (d) => void (d.kit[i] && (d.kit[i].quantity = n)))}
            />
            <TextLine label="What" value={item.name} most={LIMITS.title} onChange={(text) => change('Kit name', (d) => void (d.kit[i] && (d.kit[i].name = text)))} />
            <TextLine
              label="Stand-in"
              value={item.standIn}
              most={LIMITS.title}
              onChange={(text) => change('Stand-in', (d) => void (d.kit[i] && (d.kit[i].standIn = text)))}
            />
          </>
        ),
      }))}
    />
  );
}

export function CautionList({ block }: { block: Block }) {
  const change = useChange(block);
  return (
    <Rows
      title="Cautions"
      addLabel="+ Caution"
      most={LIMITS.cautions}
      onAdd={() => change('Cautions', (d) => void d.cautions.push(''), false)}
      onRemove={(i) => change('Cautions', (d) => void d.cautions.splice(i, 1), false)}
      rows={block.cautions.map((text, i) => ({
        key: String(i),
        name: text,
        fields: (
          <TextLine
            label={`Caution ${i + 1}`}
            value={text}
            most={LIMITS.line}
            helper="Shown to students; your local policy decides."
            onChange={(next) => change(`Caution ${i + 1}`, (d) => void (d.cautions[i] = next))}
          />
        ),
      }))}
    />
  );
}
