import { Checkbox, FormControlLabel, Typography } from '@mui/material';
import { besideLayouts, LIMITS, soundsAgain, type EditOf, valueName } from '@zest/core/lesson';
import { firstFrameFrom, lengthText, OUTPUT_FPS } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { ChoiceField, LengthField, named, TextLine, WholeField } from '../../ui/fields.tsx';
import { PartField, type FieldsProps } from './fields-of-change.tsx';
import { FollowPerformer } from './FollowPerformer.tsx';
import { PointAtJoint } from './PointAtJoint.tsx';
import { locale } from '../../ui/locale.ts';

const speeds = [
  ['100', teacherText('common.full-speed')],
  ['75', teacherText('assemble.three-quarters')],
  ['50', teacherText('common.half-speed')],
  ['25', teacherText('assemble.quarter')],
] as const;
/**
 * Fewer frames a second than this are seen one by one (common practice: film has 24, hand-drawn
 * film 12).
 */
const SMOOTH_FPS = 12;
const tenths = new Intl.NumberFormat(locale, { maximumFractionDigits: 1 });
const MOMENT = { min: 0, max: LIMITS.targetMs.max };

/** Where a second take begins: by its marks, or by hand. */
function OwnStart({
  edit,
  onChange,
}: Pick<FieldsProps<'beside' | 'instead'>, 'edit' | 'onChange'>) {
  return (
    <>
      <FormControlLabel
        label={teacherText('assemble.begins-elsewhere')}
        control={
          <Checkbox
            checked={edit.startsAtMs !== null}
            onChange={(_event, on) => onChange({ ...edit, startsAtMs: on ? 0 : null })}
          />
        }
      />
      {edit.startsAtMs !== null && (
        <LengthField
          label={teacherText('assemble.block-begins')}
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
  return teacherText('assemble.filmed-rate', {
    filmed,
    time: lengthText(Math.round(((toMs - fromMs) * 100) / speed)),
    rate: tenths.format(aSecond),
    isJerky: String(aSecond < SMOOTH_FPS),
  });
}

function AgainFields({ edit, onChange }: FieldsProps<'again'>) {
  return (
    <>
      <ChoiceField
        label={teacherText('assemble.how-fast')}
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
        label={teacherText('assemble.how-often')}
        value={edit.times}
        range={LIMITS.timesAgain}
        onChange={(times) => onChange({ ...edit, times })}
        sx={{ width: 100 }}
      />
      <ChoiceField
        label={teacherText('assemble.sound')}
        value={edit.sound}
        choices={named(soundsAgain, valueName)}
        onChange={(sound) => onChange({ ...edit, sound })}
        sx={{ width: 110 }}
      />
      {edit.speed < 100 && edit.toMs > edit.fromMs && (
        <Typography color="text.secondary">{framesWords(edit)}</Typography>
      )}
    </>
  );
}

function FreezeFields({ edit, source, onChange }: FieldsProps<'freeze'>) {
  return (
    <>
      <LengthField
        label={teacherText('assemble.how-long')}
        value={edit.lengthMs}
        range={LIMITS.extraMs}
        onChange={(lengthMs) => onChange({ ...edit, lengthMs })}
        sx={{ width: 110 }}
      />
      <TextLine
        label={teacherText('assemble.what-say-about')}
        value={edit.text}
        most={LIMITS.title}
        onChange={(text) => onChange({ ...edit, text })}
        sx={{ flex: '1 1 100%' }}
      />
      <FormControlLabel
        label={teacherText('assemble.point-how')}
        control={
          <Checkbox
            checked={edit.point !== null}
            onChange={(_event, on) => onChange({ ...edit, point: on ? { x: 500, y: 500 } : null })}
          />
        }
      />
      {source && <PointAtJoint edit={edit} source={source} onChange={onChange} />}
      {edit.point && (
        <>
          <PartField
            label={teacherText('assemble.across')}
            value={edit.point.x}
            onChange={(x) => onChange({ ...edit, point: { x, y: edit.point?.y ?? 0 } })}
          />
          <PartField
            label={teacherText('assemble.down')}
            value={edit.point.y}
            onChange={(y) => onChange({ ...edit, point: { x: edit.point?.x ?? 0, y } })}
          />
        </>
      )}
    </>
  );
}

function CardFields({ edit, onChange }: FieldsProps<'card'>) {
  return (
    <>
      <TextLine
        label={teacherText('assemble.heading')}
        value={edit.heading}
        most={LIMITS.title}
        onChange={(heading) => onChange({ ...edit, heading })}
        sx={{ flex: '1 1 100%' }}
      />
      <TextLine
        label={teacherText('assemble.lines')}
        value={edit.lines.join('\n')}
        most={LIMITS.line}
        rows={3}
        onChange={(text) =>
          onChange({ ...edit, lines: text.split('\n').slice(0, LIMITS.cardLines) })
        }
        sx={{ flex: '1 1 100%' }}
      />
      <LengthField
        label={teacherText('assemble.how-long')}
        value={edit.lengthMs}
        range={LIMITS.extraMs}
        onChange={(lengthMs) => onChange({ ...edit, lengthMs })}
        sx={{ width: 110 }}
      />
      <FormControlLabel
        label={teacherText('assemble.draw-floor')}
        control={
          <Checkbox
            checked={edit.court}
            onChange={(_event, court) => onChange({ ...edit, court })}
          />
        }
      />
    </>
  );
}

function CloserFields({ edit, source, onChange }: FieldsProps<'closer'>) {
  return (
    <>
      <Typography variant="body2" sx={{ flex: '1 1 100%' }}>
        {teacherText('assemble.draw-part')}
      </Typography>
      <WholeField
        label={teacherText('assemble.larger')}
        value={edit.zoom}
        range={LIMITS.zoom}
        onChange={(zoom) => onChange({ ...edit, zoom })}
        sx={{ width: 100 }}
      />
      {source && <FollowPerformer edit={edit} source={source} onChange={onChange} />}
      <PartField
        label={teacherText('assemble.across')}
        value={edit.from.x}
        onChange={(x) => onChange({ ...edit, from: { ...edit.from, x }, path: [] })}
      />
      <PartField
        label={teacherText('assemble.down')}
        value={edit.from.y}
        onChange={(y) => onChange({ ...edit, from: { ...edit.from, y }, path: [] })}
      />
      <PartField
        label={teacherText('assemble.then-across')}
        value={edit.to.x}
        onChange={(x) => onChange({ ...edit, to: { ...edit.to, x }, path: [] })}
      />
      <PartField
        label={teacherText('assemble.then-down')}
        value={edit.to.y}
        onChange={(y) => onChange({ ...edit, to: { ...edit.to, y }, path: [] })}
      />
    </>
  );
}

function BlurFields({ edit, onChange }: FieldsProps<'blur'>) {
  return (
    <>
      <Typography variant="body2" sx={{ flex: '1 1 100%' }}>
        {teacherText('assemble.draw-part')}
      </Typography>
      <PartField
        label={teacherText('assemble.across')}
        value={edit.x}
        onChange={(x) => onChange({ ...edit, x })}
      />
      <PartField
        label={teacherText('assemble.down')}
        value={edit.y}
        onChange={(y) => onChange({ ...edit, y })}
      />
      <PartField
        label={teacherText('assemble.width')}
        value={edit.width}
        onChange={(width) => onChange({ ...edit, width })}
      />
      <PartField
        label={teacherText('assemble.height')}
        value={edit.height}
        onChange={(height) => onChange({ ...edit, height })}
      />
    </>
  );
}

function TurnFields({ edit, onChange }: FieldsProps<'turn'>) {
  return (
    <ChoiceField
      label={teacherText('assemble.which-way')}
      value={String(edit.quarters)}
      choices={[
        ['1', teacherText('assemble.quarter-right')],
        ['3', teacherText('assemble.quarter-left')],
        ['2', teacherText('assemble.upside-down')],
      ]}
      onChange={(quarters) => onChange({ ...edit, quarters: Number(quarters) })}
    />
  );
}

function BesideFields({ edit, takes, onChange }: FieldsProps<'beside'>) {
  return (
    <>
      <ChoiceField
        label={teacherText('assemble.second-view-from')}
        value={edit.takeId}
        choices={takes}
        onChange={(takeId) => onChange({ ...edit, takeId })}
        sx={{ width: '100%' }}
      />
      <ChoiceField
        label={teacherText('assemble.where')}
        value={edit.layout}
        choices={named(besideLayouts, valueName)}
        onChange={(layout) => onChange({ ...edit, layout })}
        sx={{ width: 150 }}
      />
      <OwnStart edit={edit} onChange={onChange} />
    </>
  );
}

function InsteadFields({ edit, takes, onChange }: FieldsProps<'instead'>) {
  return (
    <>
      <ChoiceField
        label={teacherText('assemble.from')}
        value={edit.takeId}
        choices={takes}
        onChange={(takeId) => onChange({ ...edit, takeId })}
        sx={{ width: '100%' }}
      />
      <FormControlLabel
        label={teacherText('assemble.picture')}
        control={
          <Checkbox
            checked={edit.picture}
            onChange={(_event, picture) => onChange({ ...edit, picture })}
          />
        }
      />
      <FormControlLabel
        label={teacherText('assemble.its-sound')}
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
}

function PictureFadeFields({ edit, onChange }: FieldsProps<'picture'> | FieldsProps<'fade'>) {
  return (
    <LengthField
      label={teacherText('assemble.how-long')}
      value={edit.lengthMs}
      range={edit.kind === 'fade' ? LIMITS.fadeMs : LIMITS.extraMs}
      onChange={(lengthMs) => onChange({ ...edit, lengthMs })}
      sx={{ width: 110 }}
    />
  );
}

/** What is said about changes of picture and sound, by kind. */
export const pictureFields = {
  again: AgainFields,
  freeze: FreezeFields,
  card: CardFields,
  closer: CloserFields,
  blur: BlurFields,
  turn: TurnFields,
  beside: BesideFields,
  instead: InsteadFields,
  picture: PictureFadeFields,
  fade: PictureFadeFields,
};
