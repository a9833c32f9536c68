import { sayStored } from '@zest/core/words';
import type { Problem, ProblemCode } from '@zest/contract';

/** A refusal a person can act on: what was wrong, where, and what to do. */
export class Refusal extends Error {
  override readonly name = 'Refusal';
  constructor(
    readonly status: number,
    readonly problem: Problem,
  ) {
    super(problem.message);
  }
}

export function refuse(
  status: number,
  code: ProblemCode,
  message: string,
  more: Partial<Problem> = {},
): Refusal {
  return new Refusal(status, { code, message, ...more });
}

export function messageOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}

/** What an error says, in words: those that are said later are said now. */
export const wordsOf = (error: unknown): string => sayStored(messageOf(error));
