import { bodies, routes, type SessionInfo } from '@zest/contract';
import { hash, verify } from '@node-rs/argon2';
import type { Request } from 'express';
import { nanoid } from 'nanoid';
import type { Sequelize } from 'sequelize';
import { teacherText } from '@zest/core/words';
import { DEMO_LOGIN } from '../demo.ts';
import { setPassword, userOfLink } from '../db/accounts.ts';
import { User } from '../db/models.ts';
import { refuse } from '../errors.ts';
import { answer, readBody } from './answer.ts';
import type { AddRoute } from './guard.ts';
import { slowed, type Limits } from './limits.ts';
import { COOKIE } from './session.ts';

/** Attempts to sign in from one address before it has to wait. */
const MOST_ATTEMPTS = 10;
const WAIT_MS = 10 * 60_000;

/** Slows guessing down; each route counts for itself. */
export const slowSignIn = (limits: Limits, name: string) =>
  slowed(limits, name, {
    windowMs: WAIT_MS,
    limit: MOST_ATTEMPTS,
    skipSuccessfulRequests: true,
    handler: () => {
      throw refuse(429, 'slow-down', teacherText('server.sign-in-slow'));
    },
  });

async function sessionInfo(req: Request, demo: boolean): Promise<SessionInfo> {
  const user = req.session.userId ? await User.findByPk(req.session.userId) : null;
  return {
    user: user?.teamId ? { id: user.id, login: user.login, role: user.role } : null,
    needsOwner: (user ?? (await User.findOne({ attributes: ['id'] }))) === null,
    demo,
  };
}

/** A new session id on every entry, so that an id known before is worth nothing. */
export function enter(req: Request, userId: string): Promise<void> {
  return new Promise((resolve, reject) => {
    req.session.regenerate((error: unknown) => {
      if (error) {
        reject(error as Error);
        return;
      }
      req.session.userId = userId;
      req.session.save((failed: unknown) => (failed ? reject(failed as Error) : resolve()));
    });
  });
}

export function addAccountRoutes(
  route: AddRoute,
  sequelize: Sequelize,
  limits: Limits,
  demo: boolean,
): void {
  // Checked against when the name is unknown, so that the answer takes as long.
  const nobody = hash(nanoid());
  const limit = slowSignIn(limits, 'sign-in');

  route(routes.session, async (req, res) => {
    answer(res, 'session', await sessionInfo(req, demo));
  });

  route(
    routes.makeOwner,
    async (req, res) => {
      const { login, password } = readBody(bodies.makeOwner, req.body);
      const passwordHash = await hash(password);
      const user = await sequelize.transaction(async (transaction) => {
        // An empty table has no row to lock; of two first visits the one that holds this row goes
        // first.
        await sequelize.query('SELECT name FROM migrations ORDER BY name LIMIT 1 FOR UPDATE', {
          transaction,
        });
        const first = await User.findOne({ lock: transaction.LOCK.UPDATE, transaction });
        if (first) throw refuse(409, 'has-owner', teacherText('server.has-owner'));
        const id = nanoid();
        return User.create({ id, login, passwordHash, teamId: id, role: 'owner' }, { transaction });
      });
      await enter(req, user.id);
      answer(res.status(201), 'makeOwner', await sessionInfo(req, demo));
    },
    limit,
  );

  route(
    routes.signIn,
    async (req, res) => {
      const { login, password } = readBody(bodies.signIn, req.body);
      const user = await User.findOne({ where: { login } });
      const right = await verify(user?.passwordHash || (await nobody), password);
      if (!user?.teamId || !right)
        throw refuse(401, 'wrong-sign-in', teacherText('server.wrong-sign-in'));
      await enter(req, user.id);
      answer(res, 'signIn', await sessionInfo(req, demo));
    },
    limit,
  );

  route(
    routes.changePassword,
    async (req, res, { person }) => {
      const { current, next } = readBody(bodies.changePassword, req.body);
      if (demo && person.login === DEMO_LOGIN)
        throw refuse(403, 'demo', teacherText('server.demo-no-password'));
      if (!(await verify(person.passwordHash, current)))
        throw refuse(403, 'wrong-password', teacherText('server.wrong-password'));
      await setPassword(sequelize, person, next);
      // This device goes on, by a session of its own.
      await enter(req, person.id);
      res.status(204).end();
    },
    slowSignIn(limits, 'password'),
  );
  route(
    routes.setNewPassword,
    async (req, res) => {
      const { code, password } = readBody(bodies.setNewPassword, req.body);
      const user = await userOfLink(code);
      if (!user) throw refuse(404, 'no-link', teacherText('server.password-link-old'));
      await setPassword(sequelize, user, password);
      await enter(req, user.id);
      answer(res, 'setNewPassword', await sessionInfo(req, demo));
    },
    slowSignIn(limits, 'new-password'),
  );

  route(routes.enterDemo, async (req, res) => {
    const user = demo ? await User.findOne({ where: { login: DEMO_LOGIN } }) : null;
    if (!user) throw refuse(404, 'not-found', teacherText('server.no-demo'));
    await enter(req, user.id);
    answer(res, 'enterDemo', await sessionInfo(req, demo));
  });

  route(routes.signOut, async (req, res) => {
    await new Promise<void>((resolve) => req.session.destroy(() => resolve()));
    res.clearCookie(COOKIE).status(204).end();
  });
}
