import http from 'node:http';
import https from 'node:https';
import type { RequestHandler } from 'express';

const KEEP_ALIVE_MS = 75_000;

export interface Patience {
  /** How long the head of a request may take, in milliseconds. */
  headMs: number;
  /**
   * In each stretch of this long a body brings at least so many bytes, however long all of it
   * takes.
   */
  bodyMs: number;
  leastBytes: number;
}
/**
 * An upload over a bad line brings far more; who brings less holds a connection and nothing else.
 */
export const PATIENCE: Patience = { headMs: 20_000, bodyMs: 30_000, leastBytes: 4_096 };

/**
 * An HTTP or, with a certificate, HTTPS server that waits for large uploads and does not wait for
 * those who send next to nothing.
 */
export function makeServer(
  app: http.RequestListener,
  { headMs }: Patience = PATIENCE,
  tls: { cert: Buffer; key: Buffer } | null = null,
): http.Server {
  // Players ask for a piece now and then; a connection that closes just then would cost one.
  const options = {
    requestTimeout: 0,
    headersTimeout: headMs,
    connectionsCheckingInterval: Math.min(headMs, 5_000),
    keepAliveTimeout: KEEP_ALIVE_MS,
  };
  return tls
    ? https.createServer({ ...options, ...tls, handshakeTimeout: headMs }, app)
    : http.createServer(options, app);
}

/** Ends requests whose body hardly comes. */
export function endSlowBodies({ bodyMs, leastBytes }: Patience = PATIENCE): RequestHandler {
  return (req, _res, next) => {
    if (req.method !== 'GET' && req.method !== 'HEAD') {
      const { socket } = req;
      let before = socket.bytesRead;
      const look = setInterval(() => {
        // Where we are the slow ones, it is not the sender's fault.
        if (
          !req.complete &&
          req.readableLength === 0 &&
          !req.isPaused() &&
          socket.bytesRead - before < leastBytes
        )
          socket.destroy();
        before = socket.bytesRead;
      }, bodyMs);
      const done = () => clearInterval(look);
      req.once('end', done).once('close', done);
    }
    next();
  };
}
