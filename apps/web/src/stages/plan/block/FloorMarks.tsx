import { LIMITS, type Block, type FloorMark } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { makeId } from '../../../app/ids.ts';
import { useOpenLesson } from '../../../app/use-lesson.ts';
import {
  ChoiceField,
  LengthOfSpaceField,
  SpaceOrNoneField,
  TextLine,
} from '../../../ui/fields.tsx';
import { Rows } from '../../../ui/Rows.tsx';
import { setOrLeave } from '../../../ui/set-or-leave.ts';
import { useChange } from '../../../ui/use-change.ts';

const kinds: readonly (readonly [FloorMark['kind'], string])[] = [
  ['target', teacherText('block.target')],
  ['marker', teacherText('block.marker')],
  ['court', teacherText('block.court')],
  ['travel', teacherText('block.way')],
];
const OFFSET = { min: -LIMITS.sideCm.max, max: LIMITS.sideCm.max };
const width = { width: 104, flex: 'none' } as const;

/** What lies on the floor around the move, and where the performer gets to. */
export function FloorMarks({ block }: { block: Block }) {
  const change = useChange(block);
  const { units } = useOpenLesson().lesson.settings;
  const set = (i: number, label: string, recipe: (mark: FloorMark) => void) =>
    change(
      teacherText('block.mark', { label, n: i + 1 }),
      (d) => void (d.floor[i] && recipe(d.floor[i])),
    );
  return (
    <Rows
      title={teacherText('block.on-floor')}
      addLabel={teacherText('block.add-mark')}
      most={LIMITS.floorMarks}
      onAdd={() =>
        change(
          teacherText('block.floor'),
          (d) =>
            void d.floor.push({
              id: makeId(),
              kind: 'target',
              label: '',
              rightCm: 0,
              forwardCm: 200,
              widthCm: 60,
              depthCm: 60,
            }),
          false,
        )
      }
      onRemove={(i) => change(teacherText('block.floor'), (d) => void d.floor.splice(i, 1), false)}
      rows={block.floor.map((mark, i) => ({
        key: mark.id,
        name: mark.label || `mark ${i + 1}`,
        fields: (
          <>
            <ChoiceField
              label={teacherText('block.mark-name')}
              value={mark.kind}
              choices={kinds}
              sx={{ width: 110, flex: 'none' }}
              onChange={(kind) => set(i, teacherText('block.kind'), (d) => void (d.kind = kind))}
            />
            <TextLine
              label={teacherText('block.mark-of', { n: i + 1 })}
              value={mark.label}
              most={LIMITS.title}
              onChange={(text) => set(i, teacherText('common.name'), (d) => void (d.label = text))}
            />
            <LengthOfSpaceField
              label={teacherText('block.ahead')}
              value={mark.forwardCm}
              range={OFFSET}
              units={units}
              sx={width}
              onChange={(cm) =>
                set(i, teacherText('common.distance'), (d) => void (d.forwardCm = cm))
              }
            />
            <LengthOfSpaceField
              label={teacherText('block.to-right')}
              value={mark.rightCm}
              range={OFFSET}
              units={units}
              sx={width}
              onChange={(cm) => set(i, teacherText('block.place'), (d) => void (d.rightCm = cm))}
            />
            {mark.kind !== 'travel' && (
              <SpaceOrNoneField
                label={teacherText('floor.high')}
                value={mark.heightCm}
                range={LIMITS.heightCm}
                units={units}
                sx={width}
                onChange={(cm) =>
                  set(i, teacherText('common.height'), (d) => setOrLeave(d, 'heightCm', cm))
                }
              />
            )}
            {(mark.kind === 'target' || mark.kind === 'court') && (
              <>
                <LengthOfSpaceField
                  label={teacherText('block.wide')}
                  value={mark.widthCm}
                  range={LIMITS.sideCm}
                  units={units}
                  sx={width}
                  onChange={(cm) =>
                    set(i, teacherText('block.width'), (d) => void (d.widthCm = cm))
                  }
                />
                <LengthOfSpaceField
                  label={teacherText('block.deep')}
                  value={mark.depthCm}
                  range={LIMITS.sideCm}
                  units={units}
                  sx={width}
                  onChange={(cm) =>
                    set(i, teacherText('common.depth'), (d) => void (d.depthCm = cm))
                  }
                />
              </>
            )}
          </>
        ),
      }))}
    />
  );
}
