import { rateLimit, type Options, type Store } from 'express-rate-limit';
import type { RequestHandler } from 'express';

/** Where attempts of a kind are counted; undefined: in this process, for there is no other. */
export type Limits = (name: string) => Store | undefined;

/**
 * Slows down who tries too often. Where attempts cannot be counted, nobody is held up.
 * @param name what is counted, apart from all else that is
 */
export function slowed(
  limits: Limits,
  name: string,
  options: Partial<Options> & Required<Pick<Options, 'windowMs' | 'limit'>>,
): RequestHandler {
  const store = limits(name);
  return rateLimit({
    legacyHeaders: false,
    passOnStoreError: true,
    ...options,
    ...(store && { store }),
  });
}
