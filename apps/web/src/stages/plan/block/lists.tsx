import {
  LIMITS,
  makeCue,
  makeKit,
  type BlockOf,
  type Cue,
  type Kit,
  type Level,
} from '@zest/core/lesson';
import { makeId } from '../../../app/ids.ts';
import { cueMomentNames } from '../../../ui/cue-moments.ts';
import { AimField, ChoiceField, TextLine, WholeField } from '../../../ui/fields.tsx';
import { Rows } from '../../../ui/Rows.tsx';
import { useChange } from '../../../ui/use-change.ts';

/** A list of a block or of one of its exercises, and how it is changed. */
export interface ListProps<T> {
  items: readonly T[];
  change: (label: string, recipe: (items: T[]) => void, merge?: boolean) => void;
}

export function CueList({ items, change }: ListProps<Cue>) {
  return (
    <Rows
      title="Cues"
      addLabel="+ Cue"
      most={LIMITS.cues}
      onAdd={() => change('Cues', (d) => void d.push(makeCue('', makeId)), false)}
      onRemove={(i) => change('Cues', (d) => void d.splice(i, 1), false)}
      rows={items.map((cue, i) => ({
        key: cue.id,
        name: cue.text,
        fields: (
          <>
            <TextLine
              label={`Cue ${i + 1}`}
              value={cue.text}
              most={LIMITS.line}
              helper={
                cue.text.trim().split(/\s+/).length > 5
                  ? 'Two to five words are read best.'
                  : undefined
              }
              onChange={(text) => change(`Cue ${i + 1}`, (d) => void (d[i] && (d[i].text = text)))}
            />
            <ChoiceField
              label="When"
              value={cue.moment}
              choices={cueMomentNames}
              onChange={(moment) =>
                change(`Moment of cue ${i + 1}`, (d) => void (d[i] && (d[i].moment = moment)))
              }
            />
          </>
        ),
      }))}
    />
  );
}

const shares: readonly (readonly [Kit['share'], string])[] = [
  ['each', 'each'],
  ['pair', 'each pair'],
  ['group', 'the group'],
];

export function KitList({ items, change }: ListProps<Kit>) {
  return (
    <Rows
      title="Kit"
      addLabel="+ Kit"
      most={LIMITS.kit}
      onAdd={() => change('Kit', (d) => void d.push(makeKit('', makeId)), false)}
      onRemove={(i) => change('Kit', (d) => void d.splice(i, 1), false)}
      rows={items.map((item, i) => ({
        key: item.id,
        name: item.name,
        fields: (
          <>
            <WholeField
              label="How many"
              value={item.quantity}
              range={{ min: 1, max: 99 }}
              sx={{ width: 110, flex: 'none' }}
              onChange={(n) => change('How many', (d) => void (d[i] && (d[i].quantity = n)))}
            />
            <ChoiceField
              label="For"
              value={item.share}
              choices={shares}
              sx={{ width: 130, flex: 'none' }}
              onChange={(share) => change('For whom', (d) => void (d[i] && (d[i].share = share)))}
            />
            <TextLine
              label="What"
              value={item.name}
              most={LIMITS.title}
              onChange={(text) => change('Kit name', (d) => void (d[i] && (d[i].name = text)))}
            />
            <TextLine
              label="Stand-in"
              value={item.standIn}
              most={LIMITS.title}
              onChange={(text) => change('Stand-in', (d) => void (d[i] && (d[i].standIn = text)))}
            />
          </>
        ),
      }))}
    />
  );
}

export function CautionList({ items, change }: ListProps<string>) {
  return (
    <Rows
      title="Cautions"
      addLabel="+ Caution"
      most={LIMITS.cautions}
      onAdd={() => change('Cautions', (d) => void d.push(''), false)}
      onRemove={(i) => change('Cautions', (d) => void d.splice(i, 1), false)}
      rows={items.map((text, i) => ({
        key: String(i),
        name: text,
        fields: (
          <TextLine
            label={`Caution ${i + 1}`}
            value={text}
            most={LIMITS.line}
            helper="Shown to students; your local policy decides."
            onChange={(next) => change(`Caution ${i + 1}`, (d) => void (d[i] = next))}
          />
        ),
      }))}
    />
  );
}

/** What may be hit in a game, and what each is worth. */
export function ScoreTargets({ block }: { block: BlockOf<'game'> }) {
  const change = useChange(block);
  return (
    <Rows
      title="Targets"
      addLabel="+ Target"
      most={LIMITS.targets}
      onAdd={() =>
        change('Targets', (d) => void d.targets.push({ id: makeId(), name: '', points: 1 }), false)
      }
      onRemove={(i) => change('Targets', (d) => void d.targets.splice(i, 1), false)}
      rows={block.targets.map(({ id, name, points }, i) => ({
        key: id,
        name,
        fields: (
          <>
            <TextLine
              label={`Target ${i + 1}`}
              value={name}
              most={LIMITS.title}
              onChange={(text) =>
                change(`Target ${i + 1}`, (d) => void (d.targets[i] && (d.targets[i].name = text)))
              }
            />
            <WholeField
              label="Points"
              value={points}
              range={LIMITS.points}
              onChange={(n) =>
                change('Points', (d) => void (d.targets[i] && (d.targets[i].points = n)))
              }
            />
          </>
        ),
      }))}
    />
  );
}

/** What stands on a card, line by line. */
export function CardLines({ block }: { block: BlockOf<'card'> }) {
  const change = useChange(block);
  return (
    <Rows
      title="On the card"
      addLabel="+ Line"
      most={LIMITS.cardLines}
      onAdd={() => change('Card', (d) => void d.lines.push(''), false)}
      onRemove={(i) => change('Card', (d) => void d.lines.splice(i, 1), false)}
      rows={block.lines.map((text, i) => ({
        key: String(i),
        name: text,
        fields: (
          <TextLine
            label={`Line ${i + 1}`}
            value={text}
            most={LIMITS.line}
            onChange={(next) => change(`Line ${i + 1}`, (d) => void (d.lines[i] = next))}
          />
        ),
      }))}
    />
  );
}

/** The next form of a list that has so many: the first one is easier. */
export const newLevel = (count: number): Level => ({
  id: makeId(),
  form: count === 0 ? 'easier' : 'harder',
  text: '',
  rule: '',
  target: null,
});

/** Easier and harder forms, each with the rule that says when to choose it. */
export function LevelList({ items, change }: ListProps<Level>) {
  return (
    <Rows
      title="Easier and harder"
      addLabel="+ Form"
      most={LIMITS.levels}
      onAdd={() => change('Levels', (d) => void d.push(newLevel(d.length)), false)}
      onRemove={(i) => change('Levels', (d) => void d.splice(i, 1), false)}
      rows={items.map((level, i) => ({
        key: level.id,
        name: level.text,
        fields: (
          <>
            <ChoiceField
              label="Form"
              value={level.form}
              choices={[
                ['easier', 'easier'],
                ['harder', 'harder'],
              ]}
              sx={{ width: 120, flex: 'none' }}
              onChange={(form) => change('Form', (d) => void (d[i] && (d[i].form = form)))}
            />
            <TextLine
              label={`Form ${i + 1}`}
              value={level.text}
              most={LIMITS.line}
              onChange={(text) => change(`Form ${i + 1}`, (d) => void (d[i] && (d[i].text = text)))}
            />
            <TextLine
              label="Choose it when"
              value={level.rule}
              most={LIMITS.line}
              onChange={(text) =>
                change(`Rule of form ${i + 1}`, (d) => void (d[i] && (d[i].rule = text)))
              }
            />
            <AimField
              label={`Aim ${i + 1}`}
              value={level.target}
              most={LIMITS.target.max}
              onChange={(target) =>
                change(`Aim of form ${i + 1}`, (d) => void (d[i] && (d[i].target = target)))
              }
            />
          </>
        ),
      }))}
    />
  );
}
