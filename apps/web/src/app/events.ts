import { useEffect } from 'react';
import { routes, urlOf, type Job } from '@zest/contract';
import { api, readJobEvent } from './api.ts';
import { hearLogNews, missedLogNews } from './log-news.ts';
import type { AppThunk } from './state.ts';
import { useAppDispatch } from './store.ts';

/** Puts a job's news where the pages read it; the end of a job reads the finished thing anew. */
const jobNews =
  (job: Job): AppThunk =>
  (dispatch) => {
    // Nobody waits for them: until they are there, students get the take as filmed.
    if (job.kind === 'renditions') return;
    const ended = job.state !== 'running' && job.state !== 'queued' && job.state !== 'held';
    if (job.kind === 'export') {
      dispatch(
        api.util.updateQueryData('exports', job.subjectId, (jobs) => {
          const at = jobs.findIndex((known) => known.id === job.id);
          if (at >= 0) jobs[at] = job;
          else jobs.unshift(job);
        }),
      );
    } else if (ended) {
      dispatch(api.util.invalidateTags(['Takes']));
    } else {
      dispatch(takeProgress(job));
    }
  };

const takeProgress =
  (job: Job): AppThunk =>
  (dispatch, getState) => {
    for (const { endpointName, originalArgs } of api.util.selectInvalidatedBy(getState(), [
      'Takes',
    ])) {
      if (endpointName !== 'takes') continue;
      dispatch(
        api.util.updateQueryData('takes', originalArgs as string, (takes) => {
          const take = takes.find((known) => known.id === job.subjectId);
          if (take && job.kind === 'watch') {
            take.watching.state = job.state === 'running' ? 'working' : 'waiting';
            take.watching.progress = job.progress;
            return;
          }
          if (!take || take.state === 'ready' || take.state === 'failed') return;
          take.state = job.state === 'running' ? 'working' : 'waiting';
          take.progress = job.progress;
        }),
      );
    }
  };

/**
 * Listens to the server's job events while somebody is signed in; the browser connects again by
 * itself.
 */
export function useJobEvents(): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    const source = new EventSource(urlOf(routes.events, {}));
    source.addEventListener('log', (event: MessageEvent<string>) => hearLogNews(event.data));
    source.onmessage = (event: MessageEvent<string>) => dispatch(jobNews(readJobEvent(event.data)));
    // News may have been missed while there was no connection.
    let wasLost = false;
    source.onerror = () => (wasLost = true);
    source.onopen = () => {
      if (wasLost) {
        dispatch(api.util.invalidateTags(['Takes', 'Exports']));
        missedLogNews();
      }
      wasLost = false;
    };
    return () => source.close();
  }, [dispatch]);
}
