/** The names and addresses of this machine. */
import { hostname, networkInterfaces } from 'node:os';

/** Every address that others reach this machine at; those of one link alone are left out. */
export const ownAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter(({ internal, address }) => !internal && !address.toLowerCase().startsWith('fe80'))
    .map(({ address }) => address)
    .sort((a, b) => Number(a.includes(':')) - Number(b.includes(':')));

/** @param more names that the studio's own network knows it by */
export function ownNames(more: readonly string[] = []): string[] {
  const name = hostname().toLowerCase();
  return [...new Set([name, `${name.replace(/\.local$/, '')}.local`, ...more.map((one) => one.toLowerCase())])];
}

/** An address as it stands in a `Host` header. */
export const asHost = (address: string): string => (address.includes(':') ? `[${address}]` : address);
