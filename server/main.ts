import { createServer as createHttp, type Server } from 'node:http';
import { createServer as createHttps } from 'node:https';
import { hostname } from 'node:os';
import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import qrcode from 'qrcode';
import { networkAddresses, networkNames } from './addresses';
import { createServer } from './app';
import { brokerAddress } from './brokerAddress';
import { certificatesFor } from './certificates';
import { createTrustPage } from './trust';

/** Starts the server as the surroundings ask: PORT, HOST, HTTPS, YES_CLEAR_DEMO, YES_CLEAR_CERTIFICATES, YES_CLEAR_METERS. */
const ROOT = resolve(fileURLToPath(new URL('.', import.meta.url)), '..');
const DIST = resolve(ROOT, 'app/dist');
const env = process.env;

function stop(message: string): never {
  console.error(message);
  process.exit(1);
}
const port = Number(env['PORT'] ?? 4173);
if (!Number.isInteger(port) || port < 1 || port > 65_534) stop(`PORT is ${env['PORT']}; accepted is a whole number from 1 to 65534.`);
const host = env['HOST'] ?? '127.0.0.1';
const local = host === 'localhost' || host === '::1' || host.startsWith('127.');
const secure = (env['HTTPS'] ?? (local ? 'off' : 'on')) !== 'off';
const addresses = host === '0.0.0.0' || host === '::' ? networkAddresses() : [host];
const names = [...addresses, ...(local ? [] : networkNames())];
const at = env['YES_CLEAR_METERS'] ?? null;
const broker = at === null ? null : brokerAddress(at);
if (at !== null && !broker && !/^https?:\/\//.test(at))
  stop(
    `YES_CLEAR_METERS is ${at.replace(/\/\/[^@/]*@/, '//')}; accepted is a gateway like http://192.168.1.20:8080/meters or a broker with its topics like mqtt://192.168.1.20/water/#.`,
  );
// What speaks by a broker is fetched only where there is one.
const meters = broker ? new (await import('./broker')).BrokerMeters(broker) : at;
const app = createServer({ dist: DIST, demo: env['YES_CLEAR_DEMO'] !== 'off', hosts: names, meters });

const open = new Set<Server>();
function listen(server: Server, at: number): Promise<void> {
  open.add(server);
  return new Promise((ready) => {
    server.once('error', (error) => stop(`Port ${at} cannot be used (${error.message}). Set another one: PORT=8080 npm start`));
    server.listen(at, host, ready);
  });
}

/** Time answers under way are given, ms. */
const GRACE_MS = 3000;
/** Stops taking requests, lets those under way end, and goes. */
function leave(): void {
  for (const server of open) server.close(() => open.delete(server) && open.size === 0 && process.exit(0));
  for (const server of open) server.closeIdleConnections();
  setTimeout(() => process.exit(0), GRACE_MS).unref();
}
process.once('SIGTERM', leave);
process.once('SIGINT', leave);

const shown = local ? host : (addresses[0] ?? host);
const bracketed = (name: string): string => (name.includes(':') ? `[${name}]` : name);
if (secure) {
  const folder = env['YES_CLEAR_CERTIFICATES'] ?? resolve(ROOT, 'certificates');
  const { key, cert, root } = await certificatesFor([...new Set([...names, 'localhost', '127.0.0.1'])], folder, hostname());
  await listen(createHttps({ key, cert }, app), port);
  const trust = createTrustPage(root, (name) => `https://${bracketed(name)}:${port}`);
  await listen(createHttp(trust), port + 1);
  console.log(`Yes Clear is at https://${bracketed(shown)}:${port}`);
  console.log(`A phone comes here first, to trust this machine once: http://${bracketed(shown)}:${port + 1}`);
  console.log(await qrcode.toString(`http://${bracketed(shown)}:${port + 1}`, { type: 'terminal', small: true }));
  console.log('Without that trust the app works in the page, but browsers do not let it be kept offline.');
} else {
  await listen(createHttp(app), port);
  console.log(`Yes Clear is at http://${bracketed(shown)}:${port}`);
  if (!local) console.log('Without https the app works in the page, but browsers do not let it be kept offline.');
}
