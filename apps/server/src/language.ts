import { AsyncLocalStorage } from 'node:async_hooks';
import {
  isTeacherLanguage,
  LANGUAGE_COOKIE,
  speakToEach,
  type TeacherLanguage,
} from '@zest/core/words';
import { parse } from 'cookie';
import type { RequestHandler } from 'express';

const spoken = new AsyncLocalStorage<TeacherLanguage>();

/** Makes this process answer everybody in their own language. */
export const answerEachInTheirs = (): Promise<void> => speakToEach(() => spoken.getStore() ?? 'en');

/** A request is answered in the language of its page; without one in what its browser asks for. */
export const inTheirLanguage: RequestHandler = (req, _res, next) => {
  const chosen = parse(req.headers.cookie ?? '')[LANGUAGE_COOKIE] ?? '';
  const [wanted = ''] = req.acceptsLanguages();
  const language = [chosen, wanted.split('-')[0] ?? ''].find(isTeacherLanguage) ?? 'en';
  spoken.run(language, next);
};
