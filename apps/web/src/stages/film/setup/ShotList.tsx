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
  valueName,
} from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { makeId } from '../../../app/ids.ts';
import { AddButton } from '../../../ui/AddButton.tsx';
import { ChoiceField, named, TextLine, WholeField } from '../../../ui/fields.tsx';
import { ToggleChip } from '../../../ui/ToggleChip.tsx';
import { useChange } from '../../../ui/use-change.ts';

const extentNames: Record<Extent, string> = {
  overhead: teacherText('setup.arms-overhead'),
  jump: teacherText('setup.jumps'),
  lying: teacherText('setup.lying-down'),
  seated: teacherText('setup.seated'),
  throw: teacherText('setup.throws'),
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
      aria-label={teacherText('setup.how-move-fills-picture')}
    >
      <Typography>{teacherText('setup.move-has')}</Typography>
      {extents.map((extent) => (
        <ToggleChip
          key={extent}
          label={extentNames[extent]}
          isOn={has.has(extent)}
          onToggle={() =>
            change(
              teacherText('setup.move-picture'),
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
            change(teacherText('setup.move-picture'), (draft) => void (draft.extent = null), false)
          }
        >
          {teacherText('setup.exercises-usually-do')}
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
        label={teacherText('setup.camera-sees')}
        value={shot.angle}
        choices={named(shotAngles, valueName)}
        onChange={(angle) => set(teacherText('setup.angle'), (s) => void (s.angle = angle))}
        sx={{ width: 150 }}
      />
      <ChoiceField
        label={teacherText('setup.framing')}
        value={shot.framing}
        choices={named(shotFramings, valueName)}
        onChange={(framing) => set(teacherText('setup.framing'), (s) => void (s.framing = framing))}
        sx={{ width: 150 }}
      />
      <WholeField
        label={teacherText('setup.performers')}
        value={shot.performers}
        range={LIMITS.performers}
        onChange={(n) => set(teacherText('setup.performers'), (s) => void (s.performers = n))}
        sx={{ width: 110 }}
      />
      <TextLine
        label={teacherText('setup.place')}
        value={shot.place}
        most={LIMITS.title}
        helper={teacherText('setup.empty-usual-one')}
        onChange={(text) => set(teacherText('setup.place'), (s) => void (s.place = text))}
        sx={{ width: 180 }}
      />
      <TextLine
        label={teacherText('setup.note-helper')}
        value={shot.note}
        most={LIMITS.line}
        onChange={(text) => set(teacherText('setup.note'), (s) => void (s.note = text))}
        sx={{ width: 260 }}
      />
      <FormControlLabel
        label={teacherText('setup.film-fresh')}
        control={
          <Checkbox
            checked={shot.fresh}
            onChange={(_event, on) => set(teacherText('setup.fresh'), (s) => void (s.fresh = on))}
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
      teacherText('setup.shots'),
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
          {teacherText('setup.shots')}
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
        <AddButton
          label={teacherText('setup.add-shot')}
          count={shots.length}
          most={LIMITS.shots}
          onAdd={add}
        />
      </Stack>
      <ShotFields
        shot={shot}
        set={set}
        onRemove={
          shots.length > 1
            ? () =>
                change(teacherText('setup.shots'), (draft) => void draft.shots.splice(at, 1), false)
            : null
        }
        removes={teacherText('setup.remove-shot', { n: at + 1 })}
      />
      <MoveExtent block={block} />
    </Stack>
  );
}
