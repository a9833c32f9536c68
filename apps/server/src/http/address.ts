import { bodies, routes, type Address } from '@zest/contract';
import type { Request } from 'express';
import { teacherText } from '@zest/core/words';
import type { Config } from '../config.ts';
import { SettingRow } from '../db/team-models.ts';
import { refuse } from '../errors.ts';
import { ownAddresses } from '../network.ts';
import { answer, readBody } from './answer.ts';
import type { AddRoute } from './guard.ts';
import { isLoopback } from './safety.ts';

/** The one address at which others open this installation; null while nobody has said. */
async function knownAddress({ address }: Config): Promise<string | null> {
  return address ?? (await SettingRow.findByPk('address'))?.value ?? null;
}

/**
 * What links on paper begin with: the address of the installation, or the one the caller came by.
 */
export const linksBeginWith = async (config: Config, req: Request): Promise<string> =>
  (await knownAddress(config)) ?? `${req.protocol}://${req.host}`;

/** Addresses of this machine in its networks, with the scheme and port it listens by. */
function networkAddresses(req: Request): string[] {
  const port = req.socket.localPort;
  return ownAddresses()
    .filter(({ internal }) => !internal)
    .map(({ address }) => `${req.protocol}://${address}:${port}`);
}

/** Where others open this installation: asked once, used in every link, card and code. */
export function addAddressRoutes(route: AddRoute, config: Config): void {
  const view = async (req: Request): Promise<Address> => ({
    address: await knownAddress(config),
    isFixed: config.address !== null,
    found: networkAddresses(req),
    isOpen: config.trustProxy.length > 0 || !isLoopback(config.host),
  });
  route(routes.address, async (req, res) => {
    answer(res, 'address', await view(req));
  });
  route(routes.changeAddress, async (req, res) => {
    const { address } = readBody(bodies.changeAddress, req.body);
    if (config.address !== null) throw refuse(409, 'fixed', teacherText('server.address-fixed'));
    if (address === null) await SettingRow.destroy({ where: { name: 'address' } });
    else await SettingRow.upsert({ name: 'address', value: address });
    answer(res, 'changeAddress', await view(req));
  });
}
