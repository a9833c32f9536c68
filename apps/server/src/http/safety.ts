import { randomBytes } from 'node:crypto';
import type { RequestHandler } from 'express';
import helmet from 'helmet';
import { teacherText } from '@zest/core/words';
import type { Config } from '../config.ts';
import { refuse } from '../errors.ts';

declare global {
  // eslint-disable-next-line @typescript-eslint/no-namespace
  namespace Express {
    interface Locals {
      nonce: string;
    }
  }
}

/** A fresh nonce for the styles the component library adds at run time. */
export const nonce: RequestHandler = (_req, res, next) => {
  res.locals['nonce'] = randomBytes(16).toString('base64');
  next();
};

/**
 * The one script that may run WebAssembly: a worker goes by the policy of its own answer, so the
 * pages need not.
 */
const POSE_WORKER = /^\/assets\/watch\.worker-[\w-]+\.js$/;

const FOLLOW_PAGE = /^\/follow\//;

/**
 * Everything from ourselves only; no framing, no plug-ins, no inline script.
 * @param media where else video may come from
 */
export const headers = (media: readonly string[]): RequestHandler =>
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: [
          "'self'",
          (req) => (POSE_WORKER.test(req.url ?? '') ? "'wasm-unsafe-eval'" : ''),
        ],
        styleSrc: [
          "'self'",
          (_req, res) => `'nonce-${(res as unknown as { locals: Express.Locals }).locals.nonce}'`,
        ],
        imgSrc: ["'self'", 'data:', 'blob:'],
        mediaSrc: ["'self'", 'blob:', ...media],
        workerSrc: ["'self'", 'blob:'],
        connectSrc: ["'self'", ...media],
        fontSrc: ["'self'"],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        // The Share bench shows the student's page on a drawn phone.
        frameAncestors: [(req) => (FOLLOW_PAGE.test(req.url ?? '') ? "'self'" : "'none'")],
      },
    },
    // Meant for addresses with a certificate; on plain loopback it would lock a browser out.
    strictTransportSecurity: false,
    referrerPolicy: { policy: 'same-origin' },
  });

const LOOPBACK = /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/;

/** Whether that address to listen on is heard by this machine alone. */
export const isLoopback = (boundHost: string): boolean =>
  LOOPBACK.test(boundHost) || boundHost === '::1';

/**
 * Bound to loopback only, requests must name loopback, or the address given at the start: a page
 * elsewhere cannot point its own name at us. With a trusted proxy in front and no address given,
 * the proxy knows the names.
 */
export function onlyKnownNames({
  host: boundHost,
  address,
  trustProxy,
}: Pick<Config, 'host' | 'address' | 'trustProxy'>): RequestHandler {
  const isLoopbackOnly = isLoopback(boundHost);
  const isKnown = (host: string) =>
    LOOPBACK.test(host) ||
    (address === null ? trustProxy.length > 0 : host === new URL(address).host);
  return (req, _res, next) => {
    if (isLoopbackOnly && !isKnown(req.host)) {
      throw refuse(421, 'wrong-host', teacherText('server.wrong-host'));
    }
    next();
  };
}

/** Writes must come from our own pages. */
export const sameOriginWrites: RequestHandler = (req, _res, next) => {
  if (!['GET', 'HEAD', 'OPTIONS'].includes(req.method)) {
    const origin = req.headers.origin;
    const isOurs =
      origin !== undefined && URL.canParse(origin) && new URL(origin).host === req.host;
    if (!isOurs) throw refuse(403, 'wrong-origin', teacherText('server.wrong-origin'));
  }
  next();
};
