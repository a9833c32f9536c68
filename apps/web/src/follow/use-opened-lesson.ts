import { useCallback, useEffect, useMemo, useState } from 'react';
import type { FollowLesson } from '@zest/contract';
import type { Answer } from './asks.ts';
import { choicesOf, keepChosen, readChosen, readMe, type Choices, type Me } from './device.ts';
import type { LessonSource } from './source.ts';
import { languageFor, speak } from './words/index.ts';

/** Seeds of called-out games run to this. */
const SEEDS = 1_000_000;
const newSeed = () => Math.floor(Math.random() * SEEDS);

/** The lesson as this student wants it (null while it comes), and who the student is. */
export function useOpenedLesson(source: LessonSource) {
  const [chosen, setChosen] = useState(readChosen);
  const [seed, setSeed] = useState(newSeed);
  const [answer, setAnswer] = useState<Answer<FollowLesson> | null>(null);
  const [attempt, setAttempt] = useState(0);
  const [me, setMe] = useState<Me | null>(null);
  const second = answer?.kind === 'ready' ? answer.value.second : null;
  const choices = useMemo(() => choicesOf(chosen, me, second), [chosen, me, second]);
  const { hand, language, newOrder } = choices;
  useEffect(() => {
    let gone = false;
    void source.load({ hand, language, seed: newOrder ? seed : null }).then(async (next) => {
      // What was asked for before may come last, and has no say in the page's language.
      if (gone) return;
      if (next.kind === 'ready')
        await speak(languageFor([next.value.assembly.words.language, ...navigator.languages]));
      if (gone) return;
      setAnswer(next);
      if (next.kind === 'ready' && next.value.classId !== null) setMe(readMe(next.value.classId));
    });
    return () => {
      gone = true;
    };
  }, [source, attempt, hand, language, newOrder, seed]);
  const choose = useCallback((change: Partial<Choices>) => {
    setChosen((now) => {
      const next = { ...now, ...change };
      keepChosen(next);
      return next;
    });
  }, []);
  return {
    answer,
    tryAgain: () => setAttempt(attempt + 1),
    me,
    setMe,
    choices,
    choose,
    /** Called-out games come in another order the next time. */
    reorder: () => setSeed(newSeed()),
  };
}
