import { Button, Checkbox, FormControlLabel, IconButton, Stack, Typography } from '@mui/material';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import { extentOf } from '@zest/core/framing';
import {
  extents,
  LIMITS,
  shotAngles,
  shotFramings,
  type Block,
  type Extent,
  type Shot,
} from '@zest/core/lesson';
import { makeId } from '../../../app/ids.ts';
import { AddButton } from '../../../ui/AddButton.tsx';
import { ChoiceField, TextLine, WholeField } from '../../../ui/fields.tsx';
import { ToggleChip } from '../../../ui/ToggleChip.tsx';
import { useChange } from '../../../ui/use-change.ts';

const extentNames: Record<Extent, string> = {
  overhead: 'arms overhead',
  jump: 'jumps',
  lying: 'lying down',
  seated: 'seated',
  throw: 'throws',
};

/** How the moves of a block fill the picture. */
function MoveExtent({ block }: { block: Block }) {
  const change = useChange(block);
  const has = new Set(extentOf(block));
  return (
    <Stack
      direction="row"
      useFlexGap
      sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center' }}
      role="group"
      aria-label="How the move fills the picture"
    >
      <Typography>The move has</Typography>
      {extents.map((extent) => (
        <ToggleChip
          key={extent}
          label={extentNames[extent]}
          isOn={has.has(extent)}
          onToggle={() =>
            change(
              'Move in the picture',
              (draft) =>
                void (draft.extent = extents.filter((one) =>
                  one === extent ? !has.has(one) : has.has(one),
                )),
              false,
            )
          }
        />
      ))}
      {block.extent !== null && (
        <Button
          size="small"
          onClick={() =>
            change('Move in the picture', (draft) => void (draft.extent = null), false)
          }
        >
          As its exercises usually do
        </Button>
      )}
    </Stack>
  );
}

interface ShotFieldsProps {
  shot: Shot;
  set: (label: string, recipe: (shot: Shot) => void) => void;
  /** Null for the only shot. */
  onRemove: (() => void) | null;
  removes: string;
}

function ShotFields({ shot, set, onRemove, removes }: ShotFieldsProps) {
  return (
    <Stack direction="row" useFlexGap sx={{ gap: 1.5, flexWrap: 'wrap', alignItems: 'center' }}>
      <ChoiceField
        label="Camera sees"
        value={shot.angle}
        choices={shotAngles.map((angle) => [angle, `the ${angle}`])}
        onChange={(angle) => set('Angle', (s) => void (s.angle = angle))}
        sx={{ width: 150 }}
      />
      <ChoiceField
        label="Framing"
        value={shot.framing}
        choices={shotFramings.map((framing) => [framing, framing])}
        onChange={(framing) => set('Framing', (s) => void (s.framing = framing))}
        sx={{ width: 150 }}
      />
      <WholeField
        label="Performers"
        value={shot.performers}
        range={LIMITS.performers}
        onChange={(n) => set('Performers', (s) => void (s.performers = n))}
        sx={{ width: 110 }}
      />
      <TextLine
        label="Place"
        value={shot.place}
        most={LIMITS.title}
        helper="Empty: the usual one"
        onChange={(text) => set('Place', (s) => void (s.place = text))}
        sx={{ width: 180 }}
      />
      <TextLine
        label="Note to a helper"
        value={shot.note}
        most={LIMITS.line}
        onChange={(text) => set('Note', (s) => void (s.note = text))}
        sx={{ width: 260 }}
      />
      <FormControlLabel
        label="Film it fresh"
        control={
          <Checkbox
            checked={shot.fresh}
            onChange={(_event, on) => set('Fresh', (s) => void (s.fresh = on))}
          />
        }
      />
      {onRemove && (
        <IconButton aria-label={removes} onClick={onRemove}>
          <DeleteOutlineIcon fontSize="small" />
        </IconButton>
      )}
    </Stack>
  );
}

interface ShotListProps {
  block: Block;
  shots: readonly Shot[];
  at: number;
  onChoose: (at: number) => void;
}

/** How a block is filmed: its shots, and how its moves fill the picture. */
export function ShotList({ block, shots, at, onChoose }: ShotListProps) {
  const change = useChange(block);
  const shot = shots[at];
  /** The usual shot becomes the block's own as soon as it is changed. */
  const set = (label: string, recipe: (shot: Shot) => void) =>
    change(label, (draft) => {
      if (draft.shots.length === 0) draft.shots = shots.map((one) => ({ ...one }));
      const changed = draft.shots[at];
      if (changed) recipe(changed);
    });
  const add = () => {
    change(
      'Shots',
      (draft) => {
        if (draft.shots.length === 0) draft.shots = shots.map((one) => ({ ...one }));
        draft.shots.push({
          id: makeId(),
          angle: 'left side',
          framing: 'whole body',
          place: shot?.place ?? '',
          performers: 1,
          fresh: false,
          note: '',
        });
      },
      false,
    );
    onChoose(shots.length);
  };
  if (!shot) return null;
  return (
    <Stack spacing={1.5}>
      <Stack direction="row" useFlexGap sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
        <Typography variant="h3" component="h3">
          Shots
        </Typography>
        {shots.map((one, i) => (
          <Button
            key={one.id}
            size="small"
            variant={i === at ? 'contained' : 'outlined'}
            aria-pressed={i === at}
            onClick={() => onChoose(i)}
          >
            {i + 1}. {one.angle}, {one.framing}
          </Button>
        ))}
        <AddButton label="+ Shot" count={shots.length} most={LIMITS.shots} onAdd={add} />
      </Stack>
      <ShotFields
        shot={shot}
        set={set}
        onRemove={
          shots.length > 1
            ? () => change('Shots', (draft) => void draft.shots.splice(at, 1), false)
            : null
        }
        removes={`Remove shot ${at + 1}`}
      />
      <MoveExtent block={block} />
    </Stack>
  );
}
