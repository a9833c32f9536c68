import ConnectSequelize from 'connect-session-sequelize';
import type { RequestHandler } from 'express';
import session from 'express-session';
import { DataTypes, type Sequelize } from 'sequelize';

declare module 'express-session' {
  interface SessionData {
    userId: string;
  }
}

const TWO_WEEKS_MS = 14 * 24 * 3_600_000;
export const COOKIE = 'zest.sid';

/** Sessions kept in the database; the cookie holds only a signed id. */
export function sessions(sequelize: Sequelize, secret: string): RequestHandler {
  sequelize.define(
    'StoredSession',
    {
      sid: { type: DataTypes.STRING(64), primaryKey: true },
      expires: DataTypes.DATE,
      data: DataTypes.TEXT,
    },
    { tableName: 'sessions' },
  );
  const Store = ConnectSequelize(session.Store);
  return session({
    name: COOKIE,
    secret,
    store: new Store({
      db: sequelize,
      table: 'StoredSession',
      checkExpirationInterval: 3_600_000,
      expiration: TWO_WEEKS_MS,
    }),
    resave: false,
    saveUninitialized: false,
    rolling: true,
    cookie: { httpOnly: true, sameSite: 'lax', secure: 'auto', maxAge: TWO_WEEKS_MS },
  });
}
