import { performanceSchema } from '@zest/contract';
import { findBlock } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { timeOfDayText } from '../../../ui/dates.ts';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { api, problemText } from '../../../app/api.ts';
import { useAppDispatch } from '../../../app/store.ts';
import { useLessonNow } from '../../../app/use-lesson.ts';
import type { OpenCamera } from '../../../record/cameras.ts';
import { SoundDesk } from '../../../record/desk.ts';
import { FilmRun, type FilmOrder, type FilmPhase } from '../../../record/film-run.ts';
import { useLatest } from '../../../ui/use-latest.ts';
import { chooseTake } from '../uploads.ts';
import { send } from '../../../app/ask.ts';

/** A performance as it is kept. @throws with words when it is not */
const kept = async (asked: Promise<Response>) => {
  const answer = await asked;
  if (!answer.ok) throw new Error(teacherText('filming.couldn-t-save-recording'));
  return performanceSchema.parse(await answer.json());
};

interface FilmRunState {
  run: FilmRun;
  desk: SoundDesk;
  phase: FilmPhase;
  saving: number;
  fault: string | null;
  dismiss: () => void;
}

/**
 * The sound desk and the run of one film view; both end with it. Takes fall into place in the
 * lesson as they begin.
 */
export function useFilmRun(
  cameras: RefObject<readonly OpenCamera[]>,
  onDone: RefObject<(order: FilmOrder) => void>,
): FilmRunState {
  const [phase, setPhase] = useState<FilmPhase>('ready');
  const [saving, setSaving] = useState(0);
  const [fault, setFault] = useState<string | null>(null);
  const [makeTake] = api.useMakeTakeMutation();
  const dispatch = useAppDispatch();
  const now = useLessonNow();
  const taken = useLatest((order: FilmOrder, [first]: string[]) => {
    const block = findBlock(now(), order.block.id);
    // The newest take is the one that is seen until another is chosen; it lies by its mark.
    if (block && first) dispatch(chooseTake(block, first, null));
  });
  const take = useLatest(
    async (order: FilmOrder, camera: OpenCamera, index: number, performanceId: string) => {
      const name = teacherText(index > 0 ? 'filming.take-name-camera' : 'filming.take-name', {
        title: order.block.title || teacherText('untitled'),
        time: timeOfDayText(Date.now()),
        camera: index + 1,
      }).slice(0, 200);
      const answer = await makeTake({
        lessonId: order.lessonId,
        blockId: order.block.id,
        name,
        source: camera.practice ? 'practice' : 'camera',
        performanceId,
      });
      if (!answer.data)
        throw new Error(problemText(answer.error) ?? teacherText('filming.take-could-not-begun'));
      return answer.data.id;
    },
  );

  const [{ run, desk }] = useState(() => {
    const desk = new SoundDesk();
    const run = new FilmRun(desk, () => cameras.current, {
      perform: ({ lessonId, block, shotId }, playedMs) =>
        kept(send('makePerformance', { lessonId }, { blockId: block.id, shotId, playedMs })),
      endPerformance: async (id, playedMs) =>
        void (await kept(send('endPerformance', { performanceId: id }, { playedMs }))),
      makeTake: take,
      onPhase: setPhase,
      onTakes: taken,
      onDone: (order) => onDone.current(order),
      onSaving: (count) => {
        setSaving(count);
        if (count === 0) dispatch(api.util.invalidateTags(['Takes']));
      },
      onFault: setFault,
    });
    return { run, desk };
  });
  const closing = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    // Shown again in the same breath, as development does, it is not closed.
    clearTimeout(closing.current);
    return () => {
      closing.current = setTimeout(() => void run.close().finally(() => desk.close()), 0);
    };
  }, [run, desk]);

  return { run, desk, phase, saving, fault, dismiss: () => setFault(null) };
}
