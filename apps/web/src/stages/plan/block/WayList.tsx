import {
  LIMITS,
  parseSpace,
  rotations,
  spaceText,
  type Block,
  type Lesson,
  type Way,
} from '@zest/core/lesson';
import { lessonWord, teacherText } from '@zest/core/words';
import { makeId } from '../../../app/ids.ts';
import { useOpenLesson } from '../../../app/use-lesson.ts';
import { ChoiceField, LengthField, ShortField, TextLine } from '../../../ui/fields.tsx';
import { Rows } from '../../../ui/Rows.tsx';
import { setOrLeave } from '../../../ui/set-or-leave.ts';
import { useChange } from '../../../ui/use-change.ts';

const numbers = ['1', '2', '3', '4'] as const;
const DISTANCE_CM = 300;
const width = { width: 120, flex: 'none' } as const;

const agesText = ({ ages }: Way) => (ages ? `${ages.from}-${ages.to}` : '');

/** Two ages as they are written; nothing: every age. */
function readAges(text: string) {
  if (text.trim() === '') return { value: '' };
  const found = /^(\d{1,2})\s*[-–]\s*(\d{1,2})$/.exec(text.trim());
  const [from, to] = [Number(found?.[1]), Number(found?.[2])];
  const isAge = (n: number) => n >= LIMITS.age.min && n <= LIMITS.age.max;
  return found && isAge(from) && isAge(to) && from <= to
    ? { value: `${from}-${to}` }
    : { fault: teacherText('ways.ages-fault') };
}

function agesOf(text: string): Way['ages'] {
  const [from, to] = text.split('-').map(Number);
  return from && to ? { from, to } : undefined;
}

type Units = Lesson['settings']['units'];

/** Lengths with a cross between them, in whole centimetres; none where nothing is written. */
const spaces = (text: string, units: Units): number[] =>
  text
    .split(/[x×]/i)
    .filter((part) => part.trim() !== '')
    .map((part) => parseSpace(part, units) ?? NaN);

/** So many lengths as they are written; nothing: none. */
function readSpaces(text: string, many: number, units: Units) {
  const read = spaces(text, units);
  const isSpace = (cm: number) => cm >= LIMITS.sideCm.min && cm <= LIMITS.sideCm.max;
  if (read.length === 0) return { value: '' };
  return read.length === many && read.every(isSpace)
    ? { value: read.map((cm) => spaceText(cm, units)).join(' × ') }
    : { fault: teacherText(many === 1 ? 'ways.apart-fault' : 'ways.field-fault') };
}

const fieldText = ({ field }: Way, units: Units): string =>
  field ? `${spaceText(field.widthCm, units)} × ${spaceText(field.depthCm, units)}` : '';

function fieldOf(text: string, units: Units): Way['field'] {
  const [widthCm, depthCm] = spaces(text, units);
  return widthCm && depthCm ? { widthCm, depthCm } : undefined;
}

type SetWay = (label: string, recipe: (way: Way) => void) => void;

/** When one changes places with another. */
function Rotation({ way, set }: { way: Way; set: SetWay }) {
  const { rotate } = way;
  const now = rotate === undefined ? 'none' : rotate.by === 'time' ? 'time' : rotate.after;
  return (
    <>
      <ChoiceField
        label={teacherText('ways.change')}
        value={now}
        choices={(['none', ...rotations, 'time'] as const).map(
          (when) => [when, teacherText(`ways.change-${when}`)] as const,
        )}
        sx={{ width: 160, flex: 'none' }}
        onChange={(when) =>
          set(teacherText('block.changing-places'), (d) =>
            setOrLeave(
              d,
              'rotate',
              when === 'none'
                ? undefined
                : when === 'time'
                  ? { by: 'time', everyMs: 30_000 }
                  : { by: 'event', after: when },
            ),
          )
        }
      />
      {rotate?.by === 'time' && (
        <LengthField
          label={teacherText('ways.every')}
          value={rotate.everyMs}
          range={LIMITS.workMs}
          sx={width}
          onChange={(everyMs) =>
            set(
              teacherText('block.changing-places'),
              (d) => void (d.rotate = { by: 'time', everyMs }),
            )
          }
        />
      )}
    </>
  );
}

/** How a block is played by one, two, three, or four and more: rules, field and distance. */
export function WayList({ block }: { block: Block }) {
  const change = useChange(block);
  const { units } = useOpenLesson().lesson.settings;
  const ways = block.ways ?? [];
  const add = () =>
    change(
      teacherText('common.players'),
      (d) => {
        const taken = new Set((d.ways ?? []).map(({ players }) => players));
        const players = [2, 1, 3, 4].find((n) => !taken.has(n)) ?? 2;
        const way: Way = { id: makeId(), players, rules: '', distanceCm: DISTANCE_CM };
        d.ways = [...(d.ways ?? []), way];
      },
      false,
    );
  const remove = (i: number) =>
    change(
      teacherText('common.players'),
      (d) => {
        const left = (d.ways ?? []).filter((_way, k) => k !== i);
        setOrLeave(d, 'ways', left.length > 0 ? left : undefined);
      },
      false,
    );
  return (
    <Rows
      title={teacherText('ways.title')}
      addLabel={teacherText('ways.add')}
      most={LIMITS.ways}
      onAdd={add}
      onRemove={remove}
      rows={ways.map((way, i) => {
        const name = lessonWord('en', 'players.name', { n: String(way.players) });
        const set: SetWay = (label, recipe) =>
          change(`${label}, ${name}`, (d) => void (d.ways?.[i] && recipe(d.ways[i])));
        return {
          key: way.id,
          name,
          fields: (
            <>
              <ChoiceField
                label={teacherText('common.players')}
                value={String(way.players) as (typeof numbers)[number]}
                choices={numbers.map((n) => [n, lessonWord('en', 'players.name', { n })] as const)}
                sx={{ width: 170, flex: 'none' }}
                onChange={(n) =>
                  set(teacherText('common.players'), (d) => void (d.players = Number(n)))
                }
              />
              <ShortField
                label={teacherText('common.ages')}
                value={agesText(way)}
                read={readAges}
                sx={{ width: 90, flex: 'none' }}
                onChange={(text) =>
                  set(teacherText('common.ages'), (d) => setOrLeave(d, 'ages', agesOf(text)))
                }
              />
              <TextLine
                label={teacherText(way.players === 1 ? 'ways.rules-alone' : 'ways.rules')}
                value={way.rules}
                most={LIMITS.line}
                sx={{ flex: '1 1 260px' }}
                onChange={(text) => set(teacherText('block.rules'), (d) => void (d.rules = text))}
              />
              {way.players > 1 && <Rotation way={way} set={set} />}
              <ShortField
                label={teacherText(way.players === 1 ? 'ways.to-target' : 'ways.apart')}
                value={way.distanceCm === undefined ? '' : spaceText(way.distanceCm, units)}
                read={(text) => readSpaces(text, 1, units)}
                sx={{ width: 110, flex: 'none' }}
                onChange={(text) =>
                  set(teacherText('common.distance'), (d) =>
                    setOrLeave(d, 'distanceCm', spaces(text, units)[0]),
                  )
                }
              />
              <ShortField
                label={teacherText('common.field')}
                value={fieldText(way, units)}
                read={(text) => readSpaces(text, 2, units)}
                sx={{ width: 140, flex: 'none' }}
                onChange={(text) =>
                  set(teacherText('common.field'), (d) =>
                    setOrLeave(d, 'field', fieldOf(text, units)),
                  )
                }
              />
            </>
          ),
        };
      })}
    />
  );
}
