import type { FollowBlock } from '@zest/contract';
import type { LevelChoice } from './steps.ts';
import { say } from './words/index.ts';

/** The forms a block has; as shown there always is. */
export const formsOf = ({ levels }: FollowBlock): LevelChoice[] =>
  (['easier', 'standard', 'harder'] as const).filter(
    (form) => form === 'standard' || levels.some((one) => one.form === form),
  );

interface LevelFormsProps {
  block: FollowBlock;
  level: LevelChoice;
  onLevel: (level: LevelChoice) => void;
}

/** Easier and harder forms to choose among, and what the chosen one is. */
export function LevelForms({ block, level, onLevel }: LevelFormsProps) {
  const forms = formsOf(block);
  const chosen = forms.includes(level) ? level : 'standard';
  return (
    <>
      {forms.length > 1 && (
        <div className="reasons" role="group" aria-label={say('choices.how-hard')}>
          {forms.map((name) => (
            <button
              key={name}
              type="button"
              aria-pressed={name === chosen}
              onClick={() => onLevel(name)}
            >
              {say(`level.${name}`)}
            </button>
          ))}
        </div>
      )}
      {block.levels
        .filter(({ form }) => form === chosen)
        .map((form) => (
          <p key={`${form.exercise ?? ''} ${form.text}`}>
            {form.exercise !== null && <span className="soft">{form.exercise}: </span>}
            <strong>{form.text}</strong>
            {form.target !== null && (
              <span> {say('block.to-reach', { target: form.target })}.</span>
            )}
            {form.rule && <span className="soft"> {form.rule}</span>}
          </p>
        ))}
    </>
  );
}
