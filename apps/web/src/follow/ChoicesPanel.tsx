import type { FollowLesson } from '@zest/contract';
import type { Choices } from './device.ts';
import { AS_FILMED, bytesAt, megabytes } from './footage.ts';
import type { Footage } from './use-footage.ts';
import { say, spokenLanguage, type Word } from './words/index.ts';

interface ChoicesPanelProps {
  lesson: FollowLesson;
  footage: Footage;
  choices: Choices;
  onChoose: (change: Partial<Choices>) => void;
}

type Switch = { [K in keyof Choices]: Choices[K] extends boolean ? K : never }[keyof Choices];

const switches: readonly (readonly [Switch, Word])[] = [
  ['larger', 'choices.larger'],
  ['contrast', 'choices.contrast'],
  ['calm', 'choices.calm'],
  ['captions', 'choices.captions'],
  ['sound', 'choices.sound'],
  ['signals', 'choices.signals'],
  ['partByPart', 'choices.part-by-part'],
  ['strip', 'choices.strip'],
];
const levels = ['easier', 'standard', 'harder'] as const;

/** How this student wants lessons; kept on the device and used for every lesson. */
export function ChoicesPanel({ lesson, footage, choices, onChoose }: ChoicesPanelProps) {
  const forms = lesson.blocks.flatMap(({ levels: blockLevels }) => blockLevels);
  const isCalled = lesson.blocks.some((block) => block.isCalled);
  return (
    <div className="choices">
      {switches.map(([key, label]) => (
        <label key={key}>
          <input
            type="checkbox"
            checked={choices[key]}
            onChange={(event) => onChoose({ [key]: event.target.checked })}
          />
          {say(label)}
        </label>
      ))}
      {isCalled && (
        <label>
          <input
            type="checkbox"
            checked={choices.newOrder}
            onChange={(event) => onChoose({ newOrder: event.target.checked })}
          />
          {say('choices.new-order')}
        </label>
      )}
      <label>
        <input
          type="checkbox"
          checked={choices.hand === 'other hand'}
          onChange={(event) =>
            onChoose({ hand: event.target.checked ? 'other hand' : 'as filmed' })
          }
        />
        {say('choices.other-hand')}
      </label>
      {lesson.second !== null && (
        <label>
          <input
            type="checkbox"
            checked={choices.language === 'second'}
            onChange={(event) => onChoose({ language: event.target.checked ? 'second' : 'first' })}
          />
          {say('choices.second-language', {
            language:
              new Intl.DisplayNames([spokenLanguage()], { type: 'language' }).of(lesson.second) ??
              lesson.second,
          })}
        </label>
      )}
      {footage.sizes.length > 1 && (
        <label className="pick">
          {say('choices.picture')}
          <select
            value={String(choices.picture)}
            onChange={({ target }) =>
              onChoose({
                picture:
                  target.value === 'auto' || target.value === 'filmed'
                    ? target.value
                    : Number(target.value),
              })
            }
          >
            <option value="auto">{say('choices.picture-auto')}</option>
            {footage.sizes.map((lines) => (
              <option key={lines} value={lines === AS_FILMED ? 'filmed' : lines}>
                {say(lines === AS_FILMED ? 'choices.picture-filmed' : 'choices.picture-lines', {
                  lines,
                  mb: megabytes(bytesAt(footage.takes, lines)),
                })}
              </option>
            ))}
          </select>
        </label>
      )}
      {forms.length > 0 && (
        <fieldset>
          <legend>{say('choices.how-hard')}</legend>
          {levels
            .filter((level) => level === 'standard' || forms.some(({ form }) => form === level))
            .map((level) => (
              <label key={level}>
                <input
                  type="radio"
                  name="level"
                  checked={choices.level === level}
                  onChange={() => onChoose({ level })}
                />
                {say(`level.${level}`)}
              </label>
            ))}
        </fieldset>
      )}
    </div>
  );
}
