import { isOwnMachine, type Address } from '@zest/contract';
import { teamApi } from './team-api.ts';

interface Addressed {
  /** What links begin with: scheme, name and port. */
  origin: string;
  /** As it is read out, without the scheme. */
  host: string;
  /** A link opens on this machine only. */
  isHereOnly: boolean;
  known: Address | undefined;
}

/** Where others open this installation: as it was said, or as this page was opened. */
export function useAddress(): Addressed {
  const { data: known } = teamApi.useAddressQuery();
  const origin = known?.address ?? location.origin;
  const { host, hostname } = new URL(origin);
  return { origin, host, isHereOnly: isOwnMachine(hostname), known };
}
