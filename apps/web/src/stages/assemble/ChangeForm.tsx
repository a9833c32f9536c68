import { Alert, Button, Checkbox, FormControlLabel, Paper, Stack, Typography } from '@mui/material';
import {
  besideLayouts,
  editNames,
  LIMITS,
  overlaySlots,
  pointJoints,
  soundsAgain,
  type Edit,
  type EditOf,
} from '@zest/core/lesson';
import { firstFrameFrom, lengthText, OUTPUT_FPS } from '@zest/core/time';
import { ChoiceField, LengthField, TextLine, WholeField, same } from '../../ui/fields.tsx';
import { cueMomentNames } from '../../ui/cue-moments.ts';
import { UndoOfLesson } from '../../ui/draft.ts';
import { slotNames } from './words.ts';
import { FollowPerformer, type FollowSource } from './FollowPerformer.tsx';
import { missingIn } from './new-edit.ts';
import { PointAtJoint } from './PointAtJoint.tsx';

const speeds = [
  ['100', 'full speed'],
  ['75', 'three quarters'],
  ['50', 'half speed'],
  ['25', 'a quarter'],
] as const;
const slotChoices = overlaySlots.map((slot) => [slot, `the ${slotNames[slot]}`] as const);
/**
 * Fewer frames a second than this are seen one by one (common practice: film has 24, hand-drawn
 * film 12).
 */
const SMOOTH_FPS = 12;
const tenths = new Intl.NumberFormat(undefined, { maximumFractionDigits: 1 });
const MOMENT = { min: 0, max: LIMITS.targetMs.max };
const PERCENT = { min: 0, max: 100 };

/** Also by nothing at all, as it stands while a figure is typed anew. */
const isEarlier = ({ byMs }: EditOf<'shift'>) => byMs < 0 || Object.is(byMs, -0);

interface ChangeFormProps {
  edit: Edit;
  isNew: boolean;
  takes: readonly (readonly [string, string])[];
  /** The footage of the block; null when it has none. */
  source: FollowSource | null;
  onChange: (edit: Edit) => void;
  onDone: () => void;
  /** A place is to hold in the whole lesson. */
  onEverywhere: (edit: EditOf<'place'>) => void;
  onCancel: () => void;
}

/** Thousandths of the frame, as percent. */
function PartField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: number;
  onChange: (value: number) => void;
}) {
  return (
    <WholeField
      label={label}
      value={Math.round(value / 10)}
      range={PERCENT}
      onChange={(part) => onChange(part * 10)}
      sx={{ width: 104 }}
    />
  );
}

/** Where a second take begins: by its marks, or by hand. */
function OwnStart({
  edit,
  onChange,
}: {
  edit: EditOf<'beside'> | EditOf<'instead'>;
  onChange: (edit: Edit) => void;
}) {
  return (
    <>
      <FormControlLabel
        label="it begins elsewhere than its marks say"
        control={
          <Checkbox
            checked={edit.startsAtMs !== null}
            onChange={(_event, on) => onChange({ ...edit, startsAtMs: on ? 0 : null })}
          />
        }
      />
      {edit.startsAtMs !== null && (
        <LengthField
          label="The block begins in it at"
          value={edit.startsAtMs}
          range={MOMENT}
          onChange={(startsAtMs) => onChange({ ...edit, startsAtMs })}
          sx={{ width: 190 }}
        />
      )}
    </>
  );
}

/**
 * How many pictures were filmed of what is shown slowly: fewer a second than the eye takes for
 * motion, and it jerks.
 */
function framesWords({ fromMs, toMs, speed }: EditOf<'again'>): string {
  const filmed = firstFrameFrom(toMs) - firstFrameFrom(fromMs);
  const aSecond = (OUTPUT_FPS * speed) / 100;
  return (
    `${filmed} filmed frames over ` +
    `${lengthText(Math.round(((toMs - fromMs) * 100) / speed))}: ` +
    `${tenths.format(aSecond)} a second` +
    `${aSecond < SMOOTH_FPS ? ', which is seen as single pictures' : ''}.`
  );
}

function Fields({
  edit,
  takes,
  source,
  onChange,
}: Pick<ChangeFormProps, 'edit' | 'takes' | 'source' | 'onChange'>) {
  switch (edit.kind) {
    case 'again':
      return (
        <>
          <ChoiceField
            label="How fast"
            value={String(edit.speed)}
            choices={
              speeds.some(([speed]) => speed === String(edit.speed))
                ? speeds
                : [...speeds, [String(edit.speed), `${edit.speed} %`]]
            }
            onChange={(speed) => onChange({ ...edit, speed: Number(speed) })}
            sx={{ width: 150 }}
          />
          <WholeField
            label="How often"
            value={edit.times}
            range={LIMITS.timesAgain}
            onChange={(times) => onChange({ ...edit, times })}
            sx={{ width: 100 }}
          />
          <ChoiceField
            label="Its sound"
            value={edit.sound}
            choices={same(soundsAgain)}
            onChange={(sound) => onChange({ ...edit, sound })}
            sx={{ width: 110 }}
          />
          {edit.speed < 100 && edit.toMs > edit.fromMs && (
            <Typography color="text.secondary">{framesWords(edit)}</Typography>
          )}
        </>
      );
    case 'freeze':
      return (
        <>
          <LengthField
            label="How long"
            value={edit.lengthMs}
            range={LIMITS.extraMs}
            onChange={(lengthMs) => onChange({ ...edit, lengthMs })}
            sx={{ width: 110 }}
          />
          <TextLine
            label="What to say about it"
            value={edit.text}
            most={LIMITS.title}
            onChange={(text) => onChange({ ...edit, text })}
            sx={{ flex: '1 1 100%' }}
          />
          <FormControlLabel
            label="Point at a place: click it on the picture"
            control={
              <Checkbox
                checked={edit.point !== null}
                onChange={(_event, on) =>
                  onChange({ ...edit, point: on ? { x: 500, y: 500 } : null })
                }
              />
            }
          />
          {source && <PointAtJoint edit={edit} source={source} onChange={onChange} />}
          {edit.point && (
            <>
              <PartField
                label="Across, %"
                value={edit.point.x}
                onChange={(x) => onChange({ ...edit, point: { x, y: edit.point?.y ?? 0 } })}
              />
              <PartField
                label="Down, %"
                value={edit.point.y}
                onChange={(y) => onChange({ ...edit, point: { x: edit.point?.x ?? 0, y } })}
              />
            </>
          )}
        </>
      );
    case 'card':
      return (
        <>
          <TextLine
            label="Heading"
            value={edit.heading}
            most={LIMITS.title}
            onChange={(heading) => onChange({ ...edit, heading })}
            sx={{ flex: '1 1 100%' }}
          />
          <TextLine
            label="Lines"
            value={edit.lines.join('\n')}
            most={LIMITS.line}
            rows={3}
            onChange={(text) =>
              onChange({ ...edit, lines: text.split('\n').slice(0, LIMITS.cardLines) })
            }
            sx={{ flex: '1 1 100%' }}
          />
          <LengthField
            label="How long"
            value={edit.lengthMs}
            range={LIMITS.extraMs}
            onChange={(lengthMs) => onChange({ ...edit, lengthMs })}
            sx={{ width: 110 }}
          />
          <FormControlLabel
            label="Draw the block’s floor marks"
            control={
              <Checkbox
                checked={edit.court}
                onChange={(_event, court) => onChange({ ...edit, court })}
              />
            }
          />
        </>
      );
    case 'closer':
      return (
        <>
          <Typography variant="body2" sx={{ flex: '1 1 100%' }}>
            Draw the part on the picture, or say it in figures.
          </Typography>
          <WholeField
            label="Larger, %"
            value={edit.zoom}
            range={LIMITS.zoom}
            onChange={(zoom) => onChange({ ...edit, zoom })}
            sx={{ width: 100 }}
          />
          {source && <FollowPerformer edit={edit} source={source} onChange={onChange} />}
          <PartField
            label="Across, %"
            value={edit.from.x}
            onChange={(x) => onChange({ ...edit, from: { ...edit.from, x }, path: [] })}
          />
          <PartField
            label="Down, %"
            value={edit.from.y}
            onChange={(y) => onChange({ ...edit, from: { ...edit.from, y }, path: [] })}
          />
          <PartField
            label="Then across"
            value={edit.to.x}
            onChange={(x) => onChange({ ...edit, to: { ...edit.to, x }, path: [] })}
          />
          <PartField
            label="Then down"
            value={edit.to.y}
            onChange={(y) => onChange({ ...edit, to: { ...edit.to, y }, path: [] })}
          />
        </>
      );
    case 'blur':
      return (
        <>
          <Typography variant="body2" sx={{ flex: '1 1 100%' }}>
            Draw the part on the picture, or say it in figures.
          </Typography>
          <PartField label="Across, %" value={edit.x} onChange={(x) => onChange({ ...edit, x })} />
          <PartField label="Down, %" value={edit.y} onChange={(y) => onChange({ ...edit, y })} />
          <PartField
            label="Width, %"
            value={edit.width}
            onChange={(width) => onChange({ ...edit, width })}
          />
          <PartField
            label="Height, %"
            value={edit.height}
            onChange={(height) => onChange({ ...edit, height })}
          />
        </>
      );
    case 'point':
      return (
        <>
          <ChoiceField
            label="At the performer’s"
            value={edit.joint}
            choices={same(pointJoints)}
            onChange={(joint) => onChange({ ...edit, joint })}
            sx={{ width: 170 }}
          />
          <TextLine
            label="What to say about it"
            value={edit.text}
            most={LIMITS.title}
            onChange={(text) => onChange({ ...edit, text })}
            sx={{ flex: '1 1 100%' }}
          />
        </>
      );
    case 'turn':
      return (
        <ChoiceField
          label="Which way"
          value={String(edit.quarters)}
          choices={[
            ['1', 'a quarter to the right'],
            ['3', 'a quarter to the left'],
            ['2', 'upside down'],
          ]}
          onChange={(quarters) => onChange({ ...edit, quarters: Number(quarters) })}
        />
      );
    case 'beside':
      return (
        <>
          <ChoiceField
            label="Second view from"
            value={edit.takeId}
            choices={takes}
            onChange={(takeId) => onChange({ ...edit, takeId })}
            sx={{ width: '100%' }}
          />
          <ChoiceField
            label="Where"
            value={edit.layout}
            choices={same(besideLayouts)}
            onChange={(layout) => onChange({ ...edit, layout })}
            sx={{ width: 150 }}
          />
          <OwnStart edit={edit} onChange={onChange} />
        </>
      );
    case 'instead':
      return (
        <>
          <ChoiceField
            label="From"
            value={edit.takeId}
            choices={takes}
            onChange={(takeId) => onChange({ ...edit, takeId })}
            sx={{ width: '100%' }}
          />
          <FormControlLabel
            label="its picture"
            control={
              <Checkbox
                checked={edit.picture}
                onChange={(_event, picture) => onChange({ ...edit, picture })}
              />
            }
          />
          <FormControlLabel
            label="its sound"
            control={
              <Checkbox
                checked={edit.sound}
                onChange={(_event, sound) => onChange({ ...edit, sound })}
              />
            }
          />
          <OwnStart edit={edit} onChange={onChange} />
        </>
      );
    case 'note':
      return (
        <TextLine
          label="What is right"
          value={edit.text}
          most={LIMITS.line}
          onChange={(text) => onChange({ ...edit, text })}
          sx={{ flex: '1 1 100%' }}
        />
      );
    case 'cue':
      return (
        <>
          <TextLine
            label="Cue"
            value={edit.text}
            most={LIMITS.line}
            onChange={(text) => onChange({ ...edit, text })}
            sx={{ flex: '1 1 100%' }}
          />
          <ChoiceField
            label="When it applies"
            value={edit.moment}
            choices={cueMomentNames}
            onChange={(moment) => onChange({ ...edit, moment })}
          />
        </>
      );
    case 'hide':
      return (
        <ChoiceField
          label="What is left away"
          value={edit.slot}
          choices={slotChoices}
          onChange={(slot) => onChange({ ...edit, slot })}
        />
      );
    case 'shift':
      return (
        <>
          <ChoiceField
            label="What is moved"
            value={edit.slot}
            choices={slotChoices}
            onChange={(slot) => onChange({ ...edit, slot })}
            sx={{ width: 150 }}
          />
          <LengthField
            label="By"
            value={Math.abs(edit.byMs)}
            range={{ min: 0, max: LIMITS.shiftMs.max }}
            onChange={(ms) => onChange({ ...edit, byMs: isEarlier(edit) ? -ms : ms })}
            sx={{ width: 100 }}
          />
          <ChoiceField
            label="Which way"
            value={isEarlier(edit) ? 'earlier' : 'later'}
            choices={same(['earlier', 'later'])}
            onChange={(way) =>
              onChange({ ...edit, byMs: Math.abs(edit.byMs) * (way === 'earlier' ? -1 : 1) })
            }
            sx={{ width: 120 }}
          />
        </>
      );
    case 'place':
      return (
        <>
          <ChoiceField
            label="What stands elsewhere"
            value={edit.slot}
            choices={slotChoices}
            onChange={(slot) => onChange({ ...edit, slot })}
          />
          <Typography variant="body2" sx={{ flex: '1 1 100%' }}>
            Click its left upper corner on the picture, or say it in figures.
          </Typography>
          <PartField label="Across, %" value={edit.x} onChange={(x) => onChange({ ...edit, x })} />
          <PartField label="Down, %" value={edit.y} onChange={(y) => onChange({ ...edit, y })} />
        </>
      );
    case 'picture':
    case 'fade':
      return (
        <LengthField
          label="How long"
          value={edit.lengthMs}
          range={edit.kind === 'fade' ? LIMITS.fadeMs : LIMITS.extraMs}
          onChange={(lengthMs) => onChange({ ...edit, lengthMs })}
          sx={{ width: 110 }}
        />
      );
    default:
      return null;
  }
}

/** What is said about one change, until it is done. */
export function ChangeForm({
  edit,
  isNew,
  takes,
  source,
  onChange,
  onDone,
  onEverywhere,
  onCancel,
}: ChangeFormProps) {
  const missing = missingIn(edit);
  return (
    // The change is no part of the lesson yet, so undo in its fields is not the lesson's.
    <UndoOfLesson value={false}>
      <Paper
        variant="outlined"
        component="section"
        aria-label={editNames[edit.kind]}
        sx={{ p: 1.5, borderColor: 'primary.main' }}
      >
        <Typography variant="h3" sx={{ fontSize: '1.05rem', mb: 1.5 }}>
          {editNames[edit.kind]}
        </Typography>
        <Stack
          direction="row"
          useFlexGap
          sx={{ flexWrap: 'wrap', gap: 1.25, alignItems: 'center' }}
        >
          {'fromMs' in edit ? (
            <>
              <LengthField
                label="From"
                value={edit.fromMs}
                range={MOMENT}
                onChange={(fromMs) => onChange({ ...edit, fromMs })}
                sx={{ width: 110 }}
              />
              <LengthField
                label="To"
                value={edit.toMs}
                range={MOMENT}
                onChange={(toMs) => onChange({ ...edit, toMs })}
                sx={{ width: 110 }}
              />
            </>
          ) : (
            'atMs' in edit && (
              <LengthField
                label="At"
                value={edit.atMs}
                range={MOMENT}
                onChange={(atMs) => onChange({ ...edit, atMs })}
                sx={{ width: 110 }}
              />
            )
          )}
          <Fields edit={edit} takes={takes} source={source} onChange={onChange} />
        </Stack>
        {missing && (
          <Alert severity="info" sx={{ mt: 1.5 }}>
            {missing}
          </Alert>
        )}
        <Stack direction="row" sx={{ gap: 1, mt: 1.5 }}>
          <Button variant="contained" disabled={missing !== null} onClick={onDone}>
            {isNew ? 'Do it' : 'Change it'}
          </Button>
          {edit.kind === 'place' && (
            <Button onClick={() => onEverywhere(edit)}>In the whole lesson</Button>
          )}
          <Button onClick={onCancel}>Leave it</Button>
        </Stack>
      </Paper>
    </UndoOfLesson>
  );
}
