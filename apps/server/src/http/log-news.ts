import type { Hub } from '../hub/hub.ts';

/** That something came into the log of a class, for pages that show it. */
export interface LogNews {
  classId: string;
  lessonIds: (string | null)[];
}

const channelOf = (teamId: string) => `log:${teamId}`;

/** Tells a team's pages; what is told to nobody is not worth an error. */
export const tellLogNews = (hub: Hub, teamId: string, told: LogNews): void =>
  void hub.tell(channelOf(teamId), told).catch(() => undefined);

/** Hears of a team's news until the function given back is called. */
export const onLogNews = (
  hub: Hub,
  teamId: string,
  run: (told: LogNews) => void,
): Promise<() => void> => hub.hear(channelOf(teamId), (told) => run(told as LogNews));
