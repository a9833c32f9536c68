import { pino } from 'pino';

export const logLevels = ['debug', 'info', 'warn', 'error', 'silent'] as const;
export type LogLevel = (typeof logLevels)[number];

/** What happened, in a line, with figures and ids for programs that collect them. No names of people go in. */
export interface Log {
  info(line: string, facts?: Record<string, string | number>): void;
  error(line: string, facts?: Record<string, string | number>): void;
}

/** One line of JSON each, to standard error. */
export function logger(part: string, level: LogLevel = 'info'): Log {
  const lines = pino(
    {
      level,
      base: { part },
      messageKey: 'say',
      timestamp: () => `,"at":"${new Date().toISOString()}"`,
      formatters: { level: (name) => ({ level: name }) },
    },
    process.stderr,
  );
  return {
    info: (line, facts = {}) => lines.info(facts, line),
    error: (line, facts = {}) => lines.error(facts, line),
  };
}
