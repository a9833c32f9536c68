import { speakChosenLanguage } from './language.ts';

// What is loaded after it takes its words as it is loaded.
void speakChosenLanguage().then(() => import('./start.tsx'));
