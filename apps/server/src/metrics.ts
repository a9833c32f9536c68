import { createHash, timingSafeEqual } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import {
  collectDefaultMetrics,
  Counter,
  Gauge,
  Histogram,
  Registry,
  type LabelValues,
} from 'prom-client';
import { QueryTypes, type Sequelize } from 'sequelize';

// Borders of what is told apart: seconds of an answer, of a job, and seconds of video in a second.
const REQUEST_SECONDS = [0.005, 0.02, 0.05, 0.1, 0.3, 1, 3, 10];
const JOB_SECONDS = [1, 3, 10, 30, 100, 300, 1_000, 3_000, 10_000];
const SPEEDS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50];

/** Figures of a process in the open text format, for whoever watches over the installation. */
export class Metrics {
  readonly registry = new Registry();

  constructor() {
    collectDefaultMetrics({ register: this.registry, prefix: 'zest_' });
  }

  protected counter<T extends string>(name: string, help: string, labelNames: T[] = []) {
    return new Counter<T>({ name, help, labelNames, registers: [this.registry] });
  }

  protected histogram<T extends string>(
    name: string,
    help: string,
    labelNames: T[],
    buckets: number[],
  ) {
    return new Histogram<T>({ name, help, labelNames, buckets, registers: [this.registry] });
  }

  /** A figure that is looked up when it is asked for. */
  protected gauge<T extends string>(
    name: string,
    help: string,
    labelNames: T[],
    look: () => Promise<[LabelValues<T>, number][]>,
  ): void {
    const gauge: Gauge<T> = new Gauge<T>({
      ...{ name, help, labelNames, registers: [this.registry] },
      async collect() {
        const now = await look();
        gauge.reset();
        for (const [labels, value] of now) gauge.set(labels, value);
      },
    });
  }

  /** Answers somebody who asks for the figures, if they know the token. */
  async answer(token: string | null, req: IncomingMessage, res: ServerResponse): Promise<void> {
    if (token === null || !isToken(req.headers.authorization, token)) {
      res.writeHead(token === null ? 404 : 401, { 'WWW-Authenticate': 'Bearer' }).end();
      return;
    }
    // What cannot be looked up now, as with the database away, is no reason to tell nothing.
    const text = await this.registry.metrics().catch(() => null);
    if (text === null) res.writeHead(503).end();
    else res.writeHead(200, { 'Content-Type': this.registry.contentType }).end(text);
  }
}

const digest = (text: string) => createHash('sha256').update(text).digest();

/** Takes as long for a wrong one as for the right one. */
const isToken = (header: string | undefined, token: string): boolean =>
  timingSafeEqual(digest(header ?? ''), digest(`Bearer ${token}`));

interface Waiting {
  kind: string;
  state: string;
  jobs: number;
  age: number;
}

/** Of a web server: requests, what students do, the queue and the connections. */
export class WebMetrics extends Metrics {
  readonly followStarts = this.counter('zest_follow_starts_total', 'Lessons opened by students.');
  readonly results = this.counter('zest_results_total', 'Numbers and answers from students.');
  readonly errors = this.counter(
    'zest_errors_total',
    'Requests that failed through no fault of who asked.',
  );
  readonly #requests = this.counter('zest_requests_total', 'Requests, by route and status.', [
    'route',
    'status',
  ]);
  readonly #seconds = this.histogram(
    'zest_request_seconds',
    'How long answers took, by route; streams of events are left out.',
    ['route'],
    REQUEST_SECONDS,
  );

  constructor(sequelize: Sequelize) {
    super();
    // Two figures come of one look.
    let looking: Promise<Waiting[]> | null = null;
    const waiting = () =>
      (looking ??= sequelize
        .query<Waiting>(
          'SELECT kind, state, COUNT(*) AS jobs, ' +
            'TIMESTAMPDIFF(SECOND, MIN(created_at), UTC_TIMESTAMP()) AS age ' +
            "FROM jobs WHERE state IN ('queued', 'running', 'held') GROUP BY kind, state",
          { type: QueryTypes.SELECT },
        )
        .finally(() => (looking = null)));
    this.gauge(
      'zest_queue_jobs',
      'Jobs that wait, run or are held, by kind.',
      ['kind', 'state'],
      async () => (await waiting()).map(({ kind, state, jobs }) => [{ kind, state }, Number(jobs)]),
    );
    this.gauge(
      'zest_queue_oldest_seconds',
      'How long the oldest of the jobs that wait has waited, by kind.',
      ['kind'],
      async () =>
        (await waiting()).flatMap(({ kind, state, age }) =>
          state === 'queued' ? [[{ kind }, Number(age)]] : [],
        ),
    );
    this.gauge(
      'zest_database_connections',
      'Connections to the database, and requests that wait for one.',
      ['state'],
      () => {
        // Not in its types: the pool it holds its connections in.
        const { pool } = sequelize.connectionManager as unknown as {
          pool: Record<'using' | 'available' | 'waiting', number>;
        };
        return Promise.resolve([
          [{ state: 'in use' }, pool.using],
          [{ state: 'idle' }, pool.available],
          [{ state: 'waited for' }, pool.waiting],
        ]);
      },
    );
  }

  /** Counts a request once it is answered. */
  counted(route: string, res: ServerResponse): void {
    const beganMs = performance.now();
    res.once('close', () => {
      // Who left before an answer began got none.
      if (!res.headersSent) return;
      this.#requests.inc({ route, status: String(res.statusCode) });
      if (!String(res.getHeader('Content-Type')).startsWith('text/event-stream'))
        this.#seconds.observe({ route }, (performance.now() - beganMs) / 1_000);
    });
  }
}

/** Of a worker: how long jobs take, and how fast video is rendered and watched. */
export class WorkerMetrics extends Metrics {
  readonly #seconds = this.histogram(
    'zest_job_seconds',
    'How long jobs took, by kind and how they ended.',
    ['kind', 'end'],
    JOB_SECONDS,
  );
  readonly #speed = this.histogram(
    'zest_job_speed_ratio',
    'Seconds of video rendered or watched in a second, by kind.',
    ['kind'],
    SPEEDS,
  );

  /** @param videoMs how much video it was, where that is known */
  job(kind: string, end: string, seconds: number, videoMs: number | null): void {
    this.#seconds.observe({ kind, end }, seconds);
    if (videoMs !== null && seconds > 0) this.#speed.observe({ kind }, videoMs / 1_000 / seconds);
  }
}
