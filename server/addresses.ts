import { hostname, networkInterfaces } from 'node:os';

/** Addresses of this machine in its networks, those of the usual home and office networks first; none of them loopback. */
export function networkAddresses(): string[] {
  const own = Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter(({ family, internal }) => family === 'IPv4' && !internal)
    .map(({ address }) => address);
  const usual = (address: string): number => (/^(192\.168|10)\./.test(address) ? 0 : 1);
  return own.sort((a, b) => usual(a) - usual(b));
}

/** Names under which this machine may be asked for in its network. */
export function networkNames(): string[] {
  const name = hostname().toLowerCase();
  return name === '' ? [] : [...new Set([name, `${name.split('.')[0]}.local`])];
}
