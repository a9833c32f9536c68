import {
  isTeacherLanguage,
  LANGUAGE_COOKIE,
  speakToTeachers,
  teacherLanguage,
  type TeacherLanguage,
} from '@zest/core/words';

/** Where this device keeps the language its teacher chose. */
const KEPT = 'zest.language';
const baseOf = (tag: string) => tag.split('-')[0] ?? '';

/** The language of this device's pages: as chosen, else the first the browser asks for. */
function chosenLanguage(): TeacherLanguage {
  const kept = localStorage.getItem(KEPT) ?? '';
  return [kept, ...navigator.languages.map(baseOf)].find(isTeacherLanguage) ?? 'en';
}

/** Makes the page speak its teacher's language; what has words of its own is loaded after it. */
export async function speakChosenLanguage(): Promise<void> {
  await speakToTeachers(chosenLanguage());
  document.documentElement.lang = teacherLanguage();
  document.cookie = `${LANGUAGE_COOKIE}=${teacherLanguage()}; Path=/; SameSite=Lax; Max-Age=31536000`;
}

/** Another language for this device: the page is loaded anew in it. */
export function chooseLanguage(language: TeacherLanguage): void {
  localStorage.setItem(KEPT, language);
  location.reload();
}
