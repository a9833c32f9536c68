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
  ['target', 'target'],
  ['marker', 'marker'],
  ['court', 'court'],
  ['travel', 'way to'],
];
const OFFSET = { min: -LIMITS.sideCm.max, max: LIMITS.sideCm.max };
const width = { width: 104, flex: 'none' } as const;

/** What lies on the floor around the move, and where the performer gets to. */
export function FloorMarks({ block }: { block: Block }) {
  const change = useChange(block);
  const { units } = useOpenLesson().lesson.settings;
  const set = (i: number, label: string, recipe: (mark: FloorMark) => void) =>
    change(`${label} of mark ${i + 1}`, (d) => void (d.floor[i] && recipe(d.floor[i])));
  return (
    <Rows
      title="On the floor"
      addLabel="+ Mark"
      most={LIMITS.floorMarks}
      onAdd={() =>
        change(
          'Floor',
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
      onRemove={(i) => change('Floor', (d) => void d.floor.splice(i, 1), false)}
      rows={block.floor.map((mark, i) => ({
        key: mark.id,
        name: mark.label || `mark ${i + 1}`,
        fields: (
          <>
            <ChoiceField
              label="Mark"
              value={mark.kind}
              choices={kinds}
              sx={{ width: 110, flex: 'none' }}
              onChange={(kind) => set(i, 'Kind', (d) => void (d.kind = kind))}
            />
            <TextLine
              label={`Mark ${i + 1}`}
              value={mark.label}
              most={LIMITS.title}
              onChange={(text) => set(i, 'Name', (d) => void (d.label = text))}
            />
            <LengthOfSpaceField
              label="Ahead"
              value={mark.forwardCm}
              range={OFFSET}
              units={units}
              sx={width}
              onChange={(cm) => set(i, 'Distance', (d) => void (d.forwardCm = cm))}
            />
            <LengthOfSpaceField
              label="To the right"
              value={mark.rightCm}
              range={OFFSET}
              units={units}
              sx={width}
              onChange={(cm) => set(i, 'Place', (d) => void (d.rightCm = cm))}
            />
            {mark.kind !== 'travel' && (
              <SpaceOrNoneField
                label={teacherText('floor.high')}
                value={mark.heightCm}
                range={LIMITS.heightCm}
                units={units}
                sx={width}
                onChange={(cm) => set(i, 'Height', (d) => setOrLeave(d, 'heightCm', cm))}
              />
            )}
            {(mark.kind === 'target' || mark.kind === 'court') && (
              <>
                <LengthOfSpaceField
                  label="Wide"
                  value={mark.widthCm}
                  range={LIMITS.sideCm}
                  units={units}
                  sx={width}
                  onChange={(cm) => set(i, 'Width', (d) => void (d.widthCm = cm))}
                />
                <LengthOfSpaceField
                  label="Deep"
                  value={mark.depthCm}
                  range={LIMITS.sideCm}
                  units={units}
                  sx={width}
                  onChange={(cm) => set(i, 'Depth', (d) => void (d.depthCm = cm))}
                />
              </>
            )}
          </>
        ),
      }))}
    />
  );
}
