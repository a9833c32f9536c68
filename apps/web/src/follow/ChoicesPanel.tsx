import type { FollowLesson } from '@zest/contract';
import type { Choices } from './device.ts';

interface ChoicesPanelProps {
  lesson: FollowLesson;
  choices: Choices;
  onChoose: (change: Partial<Choices>) => void;
}

type Switch = { [K in keyof Choices]: Choices[K] extends boolean ? K : never }[keyof Choices];

const switches: readonly (readonly [Switch, string])[] = [
  ['larger', 'Larger words on the picture'],
  ['contrast', 'Stronger colours: easy to see from far'],
  ['calm', 'Fewer things that move'],
  ['captions', 'Words of what is said'],
  ['sound', 'Sound of the video'],
  ['signals', 'Signals: tones of clock and count, commands spoken'],
  ['partByPart', 'One part at a time: stop after each'],
];
const levels = [
  ['easier', 'Easier'],
  ['standard', 'As shown'],
  ['harder', 'Harder'],
] as const;

/** How this student wants lessons; kept on the device and used for every lesson. */
export function ChoicesPanel({ lesson, choices, onChoose }: ChoicesPanelProps) {
  const forms = lesson.blocks.flatMap(({ levels: own }) => own);
  const isCalled = lesson.blocks.some((block) => block.isCalled);
  return (
    <div className="choices">
      {switches.map(([key, label]) => (
        <label key={key}>
          <input type="checkbox" checked={choices[key]} onChange={(event) => onChoose({ [key]: event.target.checked })} />
          {label}
        </label>
      ))}
      {isCalled && (
        <label>
          <input type="checkbox" checked={choices.newOrder} onChange={(event) => onChoose({ newOrder: event.target.checked })} />
          Called-out games in a new order each time
        </label>
      )}
      <label>
        <input type="checkbox" checked={choices.hand === 'other hand'} onChange={(event) => onChoose({ hand: event.target.checked ? 'other hand' : 'as filmed' })} />
        Turned round for my other hand
      </label>
      {lesson.second !== null && (
        <label>
          <input type="checkbox" checked={choices.language === 'second'} onChange={(event) => onChoose({ language: event.target.checked ? 'second' : 'first' })} />
          In the second language: {new Intl.DisplayNames([navigator.language], { type: 'language' }).of(lesson.second)}
        </label>
      )}
      {forms.length > 0 && (
        <fieldset>
          <legend>How hard</legend>
          {levels
            .filter(([level]) => level === 'standard' || forms.some(({ form }) => form === level))
            .map(([level, label]) => (
              <label key={level}>
                <input type="radio" name="level" checked={choices.level === level} onChange={() => onChoose({ level })} />
                {label}
              </label>
            ))}
        </fieldset>
      )}
    </div>
  );
}
