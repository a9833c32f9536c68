import { Sequelize } from 'sequelize';
import type { DatabaseAddress } from './address.ts';
import { defineModels } from './models.ts';

/**
 * Connects to MariaDB and ties the models to it.
 * @param pool connections at most
 * @throws when it does not answer
 */
export async function connect(
  { host, port, user, password, name }: DatabaseAddress,
  pool = 8,
): Promise<Sequelize> {
  const sequelize = new Sequelize(name, user, password, {
    dialect: 'mysql',
    host,
    port,
    logging: false,
    timezone: '+00:00',
    pool: { max: pool, idle: 10_000 },
    dialectOptions: { charset: 'utf8mb4' },
  });
  defineModels(sequelize);
  await sequelize.authenticate();
  return sequelize;
}
