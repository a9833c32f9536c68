import { Sequelize } from 'sequelize';
import type { DatabaseAddress } from './address.ts';
import { defineModels } from './models.ts';
import { mindReplicas } from './replicas.ts';

/**
 * Connects to MariaDB and ties the models to it.
 * @param pool connections at most
 * @param replicas databases that follow the main one, see `fromReplica`
 * @throws when it does not answer
 */
export async function connect(
  { host, port, user, password, name }: DatabaseAddress,
  pool = 8,
  replicas: readonly DatabaseAddress[] = [],
): Promise<Sequelize> {
  const sequelize = new Sequelize(name, user, password, {
    dialect: 'mysql',
    host,
    port,
    logging: false,
    timezone: '+00:00',
    pool: { max: pool, idle: 10_000 },
    dialectOptions: { charset: 'utf8mb4' },
    ...(replicas.length > 0 && {
      replication: {
        write: {},
        read: replicas.map((one) => ({
          ...{ host: one.host, port: String(one.port), database: one.name },
          ...{ username: one.user, password: one.password },
        })),
      },
    }),
  });
  if (replicas.length > 0) mindReplicas(sequelize);
  defineModels(sequelize);
  await sequelize.authenticate();
  return sequelize;
}
