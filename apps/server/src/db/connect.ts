import { Sequelize } from 'sequelize';
import type { Config } from '../config.ts';
import { defineModels } from './models.ts';

/**
 * Connects to the project's MariaDB on loopback and ties the models to it.
 * @throws when it does not answer
 */
export async function connect(db: Config['db'], pool = 8): Promise<Sequelize> {
  const sequelize = new Sequelize(db.name, 'zest', db.password, {
    dialect: 'mysql',
    host: '127.0.0.1',
    port: db.port,
    logging: false,
    timezone: '+00:00',
    pool: { max: pool, idle: 10_000 },
    dialectOptions: { charset: 'utf8mb4' },
  });
  defineModels(sequelize);
  await sequelize.authenticate();
  return sequelize;
}
