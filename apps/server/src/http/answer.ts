import type { answers, AnswerOf, Problem } from '@zest/contract';
import { LessonError } from '@zest/core/lesson';
import type { ErrorRequestHandler, RequestHandler, Response } from 'express';
import type { z } from 'zod';
import { sayStored, teacherText } from '@zest/core/words';
import { messageOf, Refusal, refuse } from '../errors.ts';
import type { Log } from '../log.ts';
import type { WebMetrics } from '../metrics.ts';

/** Reads a request's body. @throws Refusal 400 naming every place that is wrong */
export function readBody<T>(schema: z.ZodType<T>, body: unknown): T {
  const result = schema.safeParse(body);
  if (result.success) return result.data;
  const faults = result.error.issues.map((issue) => ({
    place: issue.path.join('.') || 'request',
    message: issue.message,
  }));
  throw refuse(400, 'invalid', [...new Set(faults.map((fault) => fault.message))].join(' '), {
    faults,
  });
}

/** Answers a route with what the contract says it answers. */
export function answer<N extends keyof typeof answers>(
  res: Response,
  _route: N,
  value: AnswerOf<N>,
): void {
  res.json(value);
}

function problemOf(error: unknown): { status: number; problem: Problem } {
  if (error instanceof Refusal) return error;
  if (error instanceof LessonError) {
    return {
      status: 400,
      problem: { code: 'invalid-lesson', message: error.message, faults: error.faults },
    };
  }
  const known = error as { status?: number; type?: string };
  if (known.type === 'entity.too.large')
    return {
      status: 413,
      problem: { code: 'too-large', message: teacherText('server.too-much') },
    };
  if (known.type === 'entity.parse.failed')
    return {
      status: 400,
      problem: { code: 'not-json', message: teacherText('server.not-json') },
    };
  if (error instanceof URIError)
    return {
      status: 400,
      problem: {
        code: 'bad-address',
        message: teacherText('server.bad-address'),
      },
    };
  if (known.status === 404)
    return {
      status: 404,
      problem: { code: 'not-found', message: teacherText('server.nothing-here') },
    };
  if (known.status === 416)
    return {
      status: 416,
      problem: { code: 'range', message: teacherText('server.range') },
    };
  return {
    status: 500,
    problem: {
      code: 'failed',
      message: teacherText('server.failed'),
    },
  };
}

/** Turns every error into a problem in words; unknown ones are logged, never shown. */
export function answerErrors(log: Log, metrics: WebMetrics): ErrorRequestHandler {
  return (error: unknown, req, res, next) => {
    const { status, problem } = problemOf(error);
    if (status >= 500) {
      metrics.errors.inc();
      log.error(
        `${req.method} ${req.path}: ${error instanceof Error ? (error.stack ?? error.message) : messageOf(error)}`,
      );
    }
    if (res.headersSent) {
      next(error);
      return;
    }
    // What a job may meet as well is said here, in the language of who asks.
    res.status(status).json({ ...problem, message: sayStored(problem.message) });
  };
}

export const nothingHere: RequestHandler = () => {
  throw refuse(404, 'not-found', teacherText('server.nothing-here'));
};
