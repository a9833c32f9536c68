import {
  LIMITS,
  makeCue,
  makeKit,
  type BlockOf,
  type Cue,
  type Kit,
  type Level,
} from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
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
      title={teacherText('common.cues')}
      addLabel={teacherText('block.add-cue')}
      most={LIMITS.cues}
      onAdd={() =>
        change(teacherText('common.cues'), (d) => void d.push(makeCue('', makeId)), false)
      }
      onRemove={(i) => change(teacherText('common.cues'), (d) => void d.splice(i, 1), false)}
      rows={items.map((cue, i) => ({
        key: cue.id,
        name: cue.text,
        fields: (
          <>
            <TextLine
              label={teacherText('block.cue-of', { n: i + 1 })}
              value={cue.text}
              most={LIMITS.line}
              helper={
                cue.text.trim().split(/\s+/).length > 5
                  ? teacherText('block.two-five-words-read')
                  : undefined
              }
              onChange={(text) =>
                change(
                  teacherText('block.cue-of', { n: i + 1 }),
                  (d) => void (d[i] && (d[i].text = text)),
                )
              }
            />
            <ChoiceField
              label={teacherText('block.when')}
              value={cue.moment}
              choices={cueMomentNames}
              onChange={(moment) =>
                change(
                  teacherText('block.moment-cue', { n: i + 1 }),
                  (d) => void (d[i] && (d[i].moment = moment)),
                )
              }
            />
          </>
        ),
      }))}
    />
  );
}

const shares: readonly (readonly [Kit['share'], string])[] = [
  ['each', teacherText('block.each')],
  ['pair', teacherText('block.each-pair')],
  ['group', teacherText('block.the-group')],
];

export function KitList({ items, change }: ListProps<Kit>) {
  return (
    <Rows
      title={teacherText('common.kit')}
      addLabel={teacherText('block.add-kit')}
      most={LIMITS.kit}
      onAdd={() =>
        change(teacherText('common.kit'), (d) => void d.push(makeKit('', makeId)), false)
      }
      onRemove={(i) => change(teacherText('common.kit'), (d) => void d.splice(i, 1), false)}
      rows={items.map((item, i) => ({
        key: item.id,
        name: item.name,
        fields: (
          <>
            <WholeField
              label={teacherText('block.how-many')}
              value={item.quantity}
              range={{ min: 1, max: 99 }}
              sx={{ width: 110, flex: 'none' }}
              onChange={(n) =>
                change(teacherText('block.how-many'), (d) => void (d[i] && (d[i].quantity = n)))
              }
            />
            <ChoiceField
              label={teacherText('block.for')}
              value={item.share}
              choices={shares}
              sx={{ width: 130, flex: 'none' }}
              onChange={(share) =>
                change(teacherText('block.whom'), (d) => void (d[i] && (d[i].share = share)))
              }
            />
            <TextLine
              label={teacherText('block.what')}
              value={item.name}
              most={LIMITS.title}
              onChange={(text) =>
                change(teacherText('block.kit-name'), (d) => void (d[i] && (d[i].name = text)))
              }
            />
            <TextLine
              label={teacherText('block.stand')}
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
      title={teacherText('block.cautions')}
      addLabel={teacherText('block.add-caution')}
      most={LIMITS.cautions}
      onAdd={() => change(teacherText('block.cautions'), (d) => void d.push(''), false)}
      onRemove={(i) => change(teacherText('block.cautions'), (d) => void d.splice(i, 1), false)}
      rows={items.map((text, i) => ({
        key: String(i),
        name: text,
        fields: (
          <TextLine
            label={teacherText('block.caution-of', { n: i + 1 })}
            value={text}
            most={LIMITS.line}
            helper={teacherText('block.shown-students-your-local')}
            onChange={(next) =>
              change(teacherText('block.caution-of', { n: i + 1 }), (d) => void (d[i] = next))
            }
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
      title={teacherText('block.targets')}
      addLabel={teacherText('block.add-target')}
      most={LIMITS.targets}
      onAdd={() =>
        change(
          teacherText('block.targets'),
          (d) => void d.targets.push({ id: makeId(), name: '', points: 1 }),
          false,
        )
      }
      onRemove={(i) =>
        change(teacherText('block.targets'), (d) => void d.targets.splice(i, 1), false)
      }
      rows={block.targets.map(({ id, name, points }, i) => ({
        key: id,
        name,
        fields: (
          <>
            <TextLine
              label={teacherText('block.target-of', { n: i + 1 })}
              value={name}
              most={LIMITS.title}
              onChange={(text) =>
                change(
                  teacherText('block.target-of', { n: i + 1 }),
                  (d) => void (d.targets[i] && (d.targets[i].name = text)),
                )
              }
            />
            <WholeField
              label={teacherText('block.points')}
              value={points}
              range={LIMITS.points}
              onChange={(n) =>
                change(
                  teacherText('block.points'),
                  (d) => void (d.targets[i] && (d.targets[i].points = n)),
                )
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
      title={teacherText('block.on-card')}
      addLabel={teacherText('block.add-line')}
      most={LIMITS.cardLines}
      onAdd={() => change(teacherText('block.card'), (d) => void d.lines.push(''), false)}
      onRemove={(i) => change(teacherText('block.card'), (d) => void d.lines.splice(i, 1), false)}
      rows={block.lines.map((text, i) => ({
        key: String(i),
        name: text,
        fields: (
          <TextLine
            label={teacherText('block.line-of', { n: i + 1 })}
            value={text}
            most={LIMITS.line}
            onChange={(next) =>
              change(teacherText('block.line-of', { n: i + 1 }), (d) => void (d.lines[i] = next))
            }
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
      title={teacherText('block.easier-harder')}
      addLabel={teacherText('block.add-form')}
      most={LIMITS.levels}
      onAdd={() =>
        change(teacherText('block.levels'), (d) => void d.push(newLevel(d.length)), false)
      }
      onRemove={(i) => change(teacherText('block.levels'), (d) => void d.splice(i, 1), false)}
      rows={items.map((level, i) => ({
        key: level.id,
        name: level.text,
        fields: (
          <>
            <ChoiceField
              label={teacherText('block.form')}
              value={level.form}
              choices={[
                ['easier', teacherText('block.easier')],
                ['harder', teacherText('block.harder')],
              ]}
              sx={{ width: 120, flex: 'none' }}
              onChange={(form) =>
                change(teacherText('block.form'), (d) => void (d[i] && (d[i].form = form)))
              }
            />
            <TextLine
              label={teacherText('block.form-of', { n: i + 1 })}
              value={level.text}
              most={LIMITS.line}
              onChange={(text) =>
                change(
                  teacherText('block.form-of', { n: i + 1 }),
                  (d) => void (d[i] && (d[i].text = text)),
                )
              }
            />
            <TextLine
              label={teacherText('block.choose-when')}
              value={level.rule}
              most={LIMITS.line}
              onChange={(text) =>
                change(
                  teacherText('block.rule-form', { n: i + 1 }),
                  (d) => void (d[i] && (d[i].rule = text)),
                )
              }
            />
            <AimField
              label={teacherText('block.aim', { n: i + 1 })}
              value={level.target}
              most={LIMITS.target.max}
              onChange={(target) =>
                change(
                  teacherText('block.aim-form', { n: i + 1 }),
                  (d) => void (d[i] && (d[i].target = target)),
                )
              }
            />
          </>
        ),
      }))}
    />
  );
}
