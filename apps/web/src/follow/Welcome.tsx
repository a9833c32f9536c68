import { useState } from 'react';
import type { FollowLesson } from '@zest/contract';
import { kitNeeds, neededText, spaceText } from '@zest/core/lesson';
import { clockText } from '@zest/core/time';
import { ChoicesPanel } from './ChoicesPanel.tsx';
import { keepTicks, readTicks, type Choices, type Me } from './device.ts';
import { groupBy } from '@zest/core/results';
import { JoinCard } from './JoinCard.tsx';
import { KeepOffline } from './KeepOffline.tsx';
import { Movements } from './Movements.tsx';
import { isMiddle } from './place.ts';
import type { LessonSource } from './source.ts';
import type { Footage } from './use-footage.ts';
import { Unsent } from './Unsent.tsx';
import { useLog } from './use-log.ts';
import { WithTelevision } from './WithTelevision.tsx';
import { say, spokenLanguage } from './words/index.ts';

interface WelcomeProps {
  lesson: FollowLesson;
  source: LessonSource;
  footage: Footage;
  choices: Choices;
  onChoose: (change: Partial<Choices>) => void;
  me: Me | null;
  onMe: (me: Me | null) => void;
  /** Starts it, from that place. */
  onStart: (fromMs: number) => void;
  television: Parameters<typeof WithTelevision>[0];
}

/** A list to tick off; what is ticked stays ticked on this device. */
function TickList({
  of,
  name,
  items,
}: {
  of: string;
  name: string;
  items: { key: string; text: string; also: string }[];
}) {
  const [ticks, setTicks] = useState(() => readTicks(of));
  const toggle = (key: string) => {
    const next = ticks.includes(key) ? ticks.filter((tick) => tick !== key) : [...ticks, key];
    setTicks(next);
    keepTicks(of, next);
  };
  return (
    <ul className="ticks tiles" aria-label={name}>
      {items.map(({ key, text, also }) => (
        <li key={key}>
          <label>
            <input type="checkbox" checked={ticks.includes(key)} onChange={() => toggle(key)} />
            <span>
              {text}
              {also && <span className="soft"> {say('welcome.or', { thing: also })}</span>}
            </span>
          </label>
        </li>
      ))}
    </ul>
  );
}

/** What is needed, to tick off: kit, and room. */
function Needs({ lesson: { kit, room, units }, of }: { lesson: FollowLesson; of: string }) {
  const kinds = [...groupBy(kit, ({ name }) => name.trim().toLowerCase()).values()].map(
    (items) => ({
      name: items[0]?.name ?? '',
      needs: kitNeeds(items.map(({ quantity, share = 'each' }) => ({ quantity, share }))),
      standIn: items.find(({ standIn }) => standIn !== '')?.standIn ?? '',
    }),
  );
  return (
    <>
      {kinds.length > 0 && (
        <>
          <h2>{say('welcome.kit')}</h2>
          <TickList
            of={of}
            name={say('welcome.kit')}
            items={kinds.map(({ name, needs, standIn }) => ({
              key: `kit ${name}`,
              text: neededText(name, needs, spokenLanguage()),
              also: standIn,
            }))}
          />
        </>
      )}
      {room && (
        <>
          <h2>{say('welcome.room')}</h2>
          <TickList
            of={of}
            name={say('welcome.room')}
            items={[
              {
                key: 'room',
                text: say('welcome.room-size', {
                  width: spaceText(room.widthCm, units),
                  depth: spaceText(room.depthCm, units),
                  height: spaceText(room.heightCm, units),
                }),
                also: '',
              },
            ]}
          />
        </>
      )}
    </>
  );
}

interface StartFootProps {
  cautions: readonly string[];
  /** The language they are written in. */
  language: string;
  /** Where one was, in milliseconds; null at the beginning. */
  wasAt: number | null;
  isReady: boolean;
  onStart: (fromMs: number) => void;
}

/** What to see to and the start button, in view however long the page is. */
function StartFoot({ cautions, language, wasAt, isReady, onStart }: StartFootProps) {
  return (
    <div className="start-foot">
      {cautions.length > 0 && (
        <ul className="cautions" lang={language} aria-label={say('welcome.safe')} tabIndex={0}>
          {cautions.map((caution) => (
            <li key={caution} dir="auto">
              {caution}
            </li>
          ))}
        </ul>
      )}
      {wasAt !== null && (
        <button
          type="button"
          className="big start"
          onClick={() => onStart(wasAt)}
          autoFocus={isReady}
        >
          {say('welcome.go-on-at', { at: clockText(wasAt) })}
        </button>
      )}
      <button
        type="button"
        className={wasAt === null ? 'big start' : 'start'}
        onClick={() => onStart(0)}
        autoFocus={wasAt === null && isReady}
      >
        {say(wasAt === null ? 'welcome.start' : 'welcome.from-beginning')}
      </button>
    </div>
  );
}

/** Kit and space first; then the cautions, with the big start button. */
export function Welcome({
  lesson,
  source,
  footage,
  choices,
  onChoose,
  me,
  onMe,
  onStart,
  television,
}: WelcomeProps) {
  const { assembly, cautions } = lesson;
  const { language } = assembly.words;
  const pausesMs = assembly.pauses.reduce((sum, pause) => sum + pause.practiceMs, 0);
  const log = useLog(source, me, lesson.title);
  const [place] = useState(() => source.place.read());
  const wasAt =
    place !== null && place.totalMs === assembly.durationMs && isMiddle(place) ? place.atMs : null;
  const knowsWho = lesson.classId === null || source.code === null || me !== null;
  return (
    <main className="sheet">
      <Movements lesson={lesson} />
      <div lang={language} dir="auto">
        {lesson.series && <p className="soft">{lesson.series}</p>}
        <h1>{lesson.title}</h1>
        {lesson.outcome && <p>{lesson.outcome}</p>}
      </div>
      <p>
        {pausesMs > 0
          ? say('welcome.length-with-practice', {
              length: clockText(assembly.durationMs),
              all: clockText(assembly.durationMs + pausesMs),
            })
          : say('welcome.length', { length: clockText(assembly.durationMs) })}
      </p>
      {lesson.classId !== null && source.code !== null && me && (
        <JoinCard classId={lesson.classId} code={source.code} me={me} onMe={onMe} />
      )}
      <Unsent log={log} />
      <Needs lesson={lesson} of={source.key} />
      {lesson.classId !== null && source.code !== null && !me && (
        <details>
          <summary>{say('card.fold')}</summary>
          <JoinCard classId={lesson.classId} code={source.code} me={me} onMe={onMe} />
        </details>
      )}
      {source.code !== null && <WithTelevision {...television} />}
      <details>
        <summary>{say('choices.heading')}</summary>
        <ChoicesPanel lesson={lesson} footage={footage} choices={choices} onChoose={onChoose} />
      </details>
      <KeepOffline keeping={footage.keeping} />
      <StartFoot {...{ cautions, language, wasAt, onStart }} isReady={knowsWho} />
    </main>
  );
}
