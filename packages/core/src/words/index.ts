export type { Values } from './catalogue.ts';
export { labelText, lessonLanguages, lessonWord, speaking } from './lesson.ts';
export type { Label, LessonWord, Say } from './lesson.ts';
export { paperWord } from './paper.ts';
export type { PaperWord } from './paper.ts';
export { isTeacherWord, teacherText } from './teacher.ts';
export type { Figures, TeacherWord } from './teacher.ts';
