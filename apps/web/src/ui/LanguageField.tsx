import {
  teacherLanguage,
  teacherLanguages,
  teacherText,
  type TeacherLanguage,
} from '@zest/core/words';
import { chooseLanguage } from '../app/language.ts';
import { ChoiceField } from './fields.tsx';

const choices = Object.entries(teacherLanguages) as [TeacherLanguage, string][];

/** The languages it could speak instead, where there is no room for a field. */
export const otherLanguages = choices
  .filter(([language]) => language !== teacherLanguage())
  .map(([language, name]) => ({ name, choose: () => chooseLanguage(language) }));

/** The language the program speaks on this device. */
export function LanguageField() {
  return (
    <ChoiceField
      label={teacherText('common.language')}
      value={teacherLanguage()}
      choices={choices}
      onChange={chooseLanguage}
      sx={{ width: 150 }}
    />
  );
}
