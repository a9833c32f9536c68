import { teacherLanguage } from '@zest/core/words';

/** How dates and numbers are written: as the browser asks for it within the page's language. */
export const locale: string =
  navigator.languages.find((tag) => tag.split('-')[0] === teacherLanguage()) ?? teacherLanguage();
