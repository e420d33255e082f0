import 'reflect-metadata';
import { webcrypto } from 'node:crypto';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { isIP } from 'node:net';
import { join } from 'node:path';
import {
  BasicConstraintsExtension,
  cryptoProvider,
  ExtendedKeyUsage,
  ExtendedKeyUsageExtension,
  KeyUsageFlags,
  KeyUsagesExtension,
  PemConverter,
  SubjectAlternativeNameExtension,
  SubjectKeyIdentifierExtension,
  X509Certificate,
  X509CertificateGenerator,
} from '@peculiar/x509';

/**
 * An authority of this machine's own, made once, and a certificate by it for the addresses the server has now. A phone
 * that trusts the authority's root gets https from here, which browsers ask for before they keep an app offline.
 */
cryptoProvider.set(webcrypto as Crypto);

const ALGORITHM = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' } as const;
const DAY_MS = 86_400_000;
const ROOT_DAYS = 3650;
/** Phones refuse server certificates that run longer than 825 days. */
const SERVER_DAYS = 397;
/** Clocks differ: valid since a day ago. */
const BEFORE_MS = DAY_MS;

interface Keyed {
  readonly certificate: X509Certificate;
  readonly keys: CryptoKeyPair;
}
type CryptoKeyPair = Awaited<ReturnType<typeof makeKeys>>;

/** What an https server needs, and the root to trust. */
export interface Certificates {
  readonly key: string;
  /** The server's certificate, then the root. */
  readonly cert: string;
  /** The root as PEM, for the phone. */
  readonly root: string;
}

const makeKeys = () => webcrypto.subtle.generateKey(ALGORITHM, true, ['sign', 'verify']);
const serial = (): string =>
  Buffer.from(webcrypto.getRandomValues(new Uint8Array(15)))
    .toString('hex')
    .replace(/^[89a-f]/, '7');

const pkcs8 = async (keys: CryptoKeyPair): Promise<string> =>
  PemConverter.encode(await webcrypto.subtle.exportKey('pkcs8', keys.privateKey), 'PRIVATE KEY');

async function makeRoot(name: string): Promise<Keyed> {
  const keys = await makeKeys();
  const certificate = await X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: `CN=Yes Clear on ${name.replace(/[^\w.-]/g, '')}`,
    notBefore: new Date(Date.now() - BEFORE_MS),
    notAfter: new Date(Date.now() + ROOT_DAYS * DAY_MS),
    signingAlgorithm: ALGORITHM,
    keys,
    extensions: [
      new BasicConstraintsExtension(true, 0, true),
      new KeyUsagesExtension(KeyUsageFlags.keyCertSign | KeyUsageFlags.cRLSign, true),
      await SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  return { certificate, keys };
}

/** The root kept in the folder, or a new one that is kept there; its key is readable by its owner alone. */
async function rootIn(folder: string, name: string): Promise<Keyed> {
  const [certificateFile, keyFile] = [join(folder, 'root.crt'), join(folder, 'root.key')];
  try {
    const certificate = new X509Certificate(await readFile(certificateFile, 'utf8'));
    const pem = PemConverter.decodeFirst(await readFile(keyFile, 'utf8'));
    const privateKey = await webcrypto.subtle.importKey('pkcs8', pem, ALGORITHM, true, ['sign']);
    if (certificate.notAfter.getTime() > Date.now() + SERVER_DAYS * DAY_MS) {
      return { certificate, keys: { privateKey, publicKey: await certificate.publicKey.export() } };
    }
  } catch {
    // There is none yet, or it cannot be read: a new one takes its place.
  }
  const made = await makeRoot(name);
  await mkdir(folder, { recursive: true, mode: 0o700 });
  await writeFile(keyFile, await pkcs8(made.keys), { mode: 0o600 });
  await writeFile(certificateFile, made.certificate.toString('pem'));
  return made;
}

/**
 * Certificates for the names and addresses a server is asked for.
 *
 * @param folder where the root and its key are kept between starts
 */
export async function certificatesFor(hosts: readonly string[], folder: string, name: string): Promise<Certificates> {
  const root = await rootIn(folder, name);
  const keys = await makeKeys();
  const certificate = await X509CertificateGenerator.create({
    serialNumber: serial(),
    subject: `CN=${name.replace(/[^\w.-]/g, '') || 'yes-clear'}`,
    issuer: root.certificate.subject,
    notBefore: new Date(Date.now() - BEFORE_MS),
    notAfter: new Date(Date.now() + SERVER_DAYS * DAY_MS),
    publicKey: keys.publicKey,
    signingKey: root.keys.privateKey,
    signingAlgorithm: ALGORITHM,
    extensions: [
      new BasicConstraintsExtension(false, undefined, true),
      new KeyUsagesExtension(KeyUsageFlags.digitalSignature, true),
      new ExtendedKeyUsageExtension([ExtendedKeyUsage.serverAuth]),
      new SubjectAlternativeNameExtension(hosts.map((host) => ({ type: isIP(host) ? ('ip' as const) : ('dns' as const), value: host }))),
    ],
  });
  const rootPem = root.certificate.toString('pem');
  return { key: await pkcs8(keys), cert: `${certificate.toString('pem')}\n${rootPem}\n`, root: rootPem };
}
