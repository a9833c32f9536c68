import type { Ledgers } from '@zest/core/ledger';
import { meetsTarget, partName, type Lesson } from '@zest/core/lesson';
import type { Schedule } from '@zest/core/schedule';
import { clockText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { memo, type ReactNode } from 'react';
import { effortHeadline } from './Effort.tsx';
import { kitHeadline } from './KitNeeds.tsx';
import './meters.css';
import { sidesHeadline } from './Sides.tsx';
import { usePlanView } from '../view.ts';
import { spaceHeadline } from './Space.tsx';

const WIDE = 44;
const HIGH = 22;

const Picture = ({ children }: { children: ReactNode }) => (
  <svg viewBox={`0 0 ${WIDE} ${HIGH}`} width={WIDE} height={HIGH} aria-hidden="true">
    {children}
  </svg>
);

/** A length against the one aimed for: how full, and where the aim lies. */
function Filling({ ms, aimMs }: { ms: number; aimMs: number | null }) {
  const whole = Math.max(ms, aimMs ?? 0, 1);
  const x = (at: number) => 1 + (at / whole) * (WIDE - 4);
  return (
    <Picture>
      <rect x="1" y="7" width={WIDE - 2} height="9" rx="2" className="meter-edge" />
      <rect x="1" y="7" width={Math.max(1, x(ms) - 1)} height="9" rx="2" className="meter-fill" />
      {aimMs !== null && <path d={`M${x(aimMs)} 3v17`} className="meter-aim" />}
    </Picture>
  );
}

/** Effort minute by minute as small columns. */
function Curve({ curve: { minutes } }: Pick<Ledgers, 'curve'>) {
  const wide = WIDE / Math.max(1, minutes.length);
  return (
    <Picture>
      {minutes.map(({ minute, effort }, i) => {
        const high = (effort / 5) * (HIGH - 2);
        return (
          <rect
            key={minute}
            x={i * wide}
            y={HIGH - high}
            width={Math.max(0.6, wide - 0.6)}
            height={high}
            className="meter-fill"
          />
        );
      })}
    </Picture>
  );
}

/** Left and right as two bars from the middle. */
function Balance({ sides: { left, right } }: Pick<Ledgers, 'sides'>) {
  const most = Math.max(left.ms, right.ms, 1);
  const long = (ms: number) => (ms / most) * (WIDE / 2 - 3);
  return (
    <Picture>
      <rect
        x={WIDE / 2 - 1 - long(left.ms)}
        y="6"
        width={long(left.ms)}
        height="10"
        className="meter-fill"
      />
      <rect x={WIDE / 2 + 1} y="6" width={long(right.ms)} height="10" className="meter-fill" />
      <path d={`M${WIDE / 2} 2v18`} className="meter-aim" />
    </Picture>
  );
}

/** One dot for each, the ones that are missing hollow. */
function Dots({ has, lacks }: { has: number; lacks: number }) {
  const all = Math.min(12, has + lacks);
  return (
    <Picture>
      {Array.from({ length: all }, (_, i) => (
        <circle
          key={i}
          cx={4 + (i % 6) * 7}
          cy={all > 6 ? 6 + Math.floor(i / 6) * 10 : HIGH / 2}
          r="2.7"
          className={i < has ? 'meter-fill' : 'meter-edge'}
        />
      ))}
    </Picture>
  );
}

/** The room there is, and what the lesson needs of it. */
function Floor({ room, space }: { room: Lesson['room']; space: Ledgers['space'] }) {
  const [width, depth] = [space.needs[0]?.cm ?? 0, space.needs[1]?.cm ?? 0];
  const most = Math.max(room?.widthCm ?? 0, (room?.depthCm ?? 0) * 2, width, depth * 2, 1);
  const box = (w: number, d: number) => {
    const [wide, high] = [(w / most) * (WIDE - 3), ((d * 2) / most) * (HIGH - 3)];
    return { x: (WIDE - wide) / 2, y: (HIGH - high) / 2, width: wide, height: high };
  };
  return (
    <Picture>
      {width > 0 && <rect {...box(width, depth)} className="meter-fill" />}
      {room && <rect {...box(room.widthCm, room.depthCm)} className="meter-edge" />}
    </Picture>
  );
}

interface MeterProps {
  name: string;
  words: ReactNode;
  isWell: boolean;
  isOpen: boolean;
  picture: ReactNode;
  onOpen: () => void;
}

function Meter({ name, words, isWell, isOpen, picture, onOpen }: MeterProps) {
  return (
    <button
      type="button"
      className={isWell ? 'meter' : 'meter is-off'}
      aria-expanded={isOpen}
      onClick={onOpen}
    >
      {picture}
      <span className="meter-text">
        <span className="meter-name">{name}</span> <span className="meter-words">{words}</span>
      </span>
    </button>
  );
}

interface MetersProps {
  lesson: Lesson;
  schedule: Schedule;
  ledgers: Ledgers;
}

/** What the plan comes to, each sum one small picture; what is off stands out. */
export const Meters = memo(function Meters(props: MetersProps) {
  const { lesson, schedule, ledgers } = props;
  const { drawer, open } = usePlanView();
  const { targets, settings, room } = lesson;
  const clock = (which: 'video' | 'session', ms: number) => {
    const target = targets[which];
    return {
      id: 'time' as const,
      name: teacherText(`meter.${which}`),
      words: (
        <>
          <span data-testid={which === 'video' ? 'video-clock' : 'student-clock'}>
            {clockText(ms)}
          </span>
          {target && <span className="meter-of"> / {clockText(target.ms)}</span>}
        </>
      ),
      isWell: meetsTarget(ms, target),
      picture: <Filling ms={ms} aimMs={target?.ms ?? null} />,
    };
  };
  const [first, ...more] = ledgers.missing;
  const late = ledgers.kit.filter(({ fetchBefore }) => fetchBefore).length;
  const meters = [
    clock('video', schedule.videoMs),
    clock('session', schedule.studentMs),
    {
      ...{ id: 'effort' as const, name: teacherText('meter.effort') },
      ...effortHeadline(ledgers.advice),
      picture: <Curve curve={ledgers.curve} />,
    },
    {
      ...{ id: 'sides' as const, name: teacherText('meter.sides') },
      ...sidesHeadline(ledgers.sides),
      picture: <Balance sides={ledgers.sides} />,
    },
    {
      ...{ id: 'kit' as const, name: teacherText('meter.kit') },
      ...kitHeadline(ledgers.kit),
      picture: <Dots has={ledgers.kit.length - late} lacks={late} />,
    },
    {
      ...{ id: 'space' as const, name: teacherText('meter.space') },
      ...spaceHeadline(ledgers.space, settings.units),
      picture: <Floor room={room} space={ledgers.space} />,
    },
    {
      ...{ id: 'parts' as const, name: teacherText('meter.parts') },
      words: first
        ? teacherText('meter.without', { part: partName(first), n: more.length })
        : teacherText('meter.all-parts'),
      isWell: first === undefined,
      picture: (
        <Dots has={settings.parts.length - ledgers.missing.length} lacks={ledgers.missing.length} />
      ),
    },
  ];
  return (
    <div className="meters" role="toolbar" aria-label={teacherText('pane.sums')}>
      {meters.map(({ id, ...meter }) => (
        <Meter
          key={meter.name}
          {...meter}
          isOpen={drawer === id}
          onOpen={() => open(drawer === id ? null : id)}
        />
      ))}
    </div>
  );
});
