export type { Values } from './catalogue.ts';
export { labelText, lessonLanguages, lessonWord, speaking } from './lesson.ts';
export type { Label, LessonWord, Say } from './lesson.ts';
export { paperWord } from './paper.ts';
export type { PaperWord } from './paper.ts';
export {
  isTeacherLanguage,
  isTeacherWord,
  LANGUAGE_COOKIE,
  saying,
  sayStored,
  speakToEach,
  speakToTeachers,
  teacherLanguage,
  teacherLanguages,
  teacherLocale,
  teacherText,
  textToSay,
} from './teacher.ts';
export type { Figures, TeacherLanguage, TeacherWord } from './teacher.ts';
