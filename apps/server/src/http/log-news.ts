import { EventEmitter } from 'node:events';

/** That something came into the log of a class, for pages that show it. */
export interface LogNews {
  teamId: string;
  classId: string;
  lessonIds: (string | null)[];
}

const news = new EventEmitter<{ news: [LogNews] }>();
// One a page that is open.
news.setMaxListeners(0);

export const tellLogNews = (told: LogNews): void => void news.emit('news', told);

/** Hears of a team's news until the function given back is called. */
export function onLogNews(teamId: string, run: (told: LogNews) => void): () => void {
  const hear = (told: LogNews) => told.teamId === teamId && run(told);
  news.on('news', hear);
  return () => void news.off('news', hear);
}
