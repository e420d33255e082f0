import express, { type Express } from 'express';
import helmet from 'helmet';

/**
 * The plain page that hands out the root: a phone has to trust it before the app's own address is safe to it. It serves
 * nothing else, for what is kept under one address is not there under another.
 *
 * @param root the root certificate as PEM
 * @param app address of the app by https
 */
export function createTrustPage(root: string, app: (host: string) => string): Express {
  const server = express();
  server.disable('x-powered-by');
  server.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: { defaultSrc: ["'none'"], styleSrc: ["'unsafe-inline'"], baseUri: ["'none'"], frameAncestors: ["'none'"] },
      },
      strictTransportSecurity: false,
      referrerPolicy: { policy: 'no-referrer' },
    }),
  );
  server.get('/yes-clear-root.crt', (_request, response) => {
    response
      .set({ 'Content-Type': 'application/x-x509-ca-cert', 'Content-Disposition': 'attachment; filename="yes-clear-root.crt"' })
      .send(Buffer.from(root));
  });
  server.get('/', (request, response) => {
    const address = app(request.hostname.replace(/[^\w.:[\]-]/g, ''));
    response.type('html').set('Cache-Control', 'no-cache').send(page(address));
  });
  server.use((_request, response) => {
    response.status(404).type('text').send('There is nothing at this address.');
  });
  return server;
}

const page = (address: string): string => `<!doctype html>
<html lang="en">
<meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>Yes Clear on this network</title>
<style>
body { font: 17px/1.5 system-ui, sans-serif; background: #f3f0e8; color: #1b2b2d; margin: 0; padding: 24px 20px; }
main { max-width: 620px; margin: 0 auto; } h1 { font-size: 25px; } li { margin: 10px 0; }
a.button { display: inline-block; background: #0c5460; color: #fffdf8; padding: 12px 18px; border-radius: 10px; text-decoration: none; font-weight: 650; }
.muted { color: #61706f; font-size: 15px; }
</style>
<main>
<h1>Yes Clear on this network</h1>
<p>A browser keeps an app for use without a signal only from an address it trusts. This machine has made a root certificate of its own; a phone has to trust it once.</p>
<ol>
<li><a class="button" href="/yes-clear-root.crt">Get the root certificate</a></li>
<li>Have the phone trust it. Android: Settings, Security, Encryption and credentials, Install a certificate, CA certificate. iPhone and iPad: Settings, Profile downloaded, Install; then General, About, Certificate trust settings, switch it on.</li>
<li><a class="button" href="${address}">Open Yes Clear</a><br><span class="muted">${address}</span></li>
</ol>
<p class="muted">Without this the app works in the page while this machine can be reached, after a warning; it cannot be kept offline, for browsers refuse service workers from a certificate they do not trust. Whoever holds the key of a root you trust could pose as any site to your phone: the key stays on this machine, and the root can be taken off the phone again in the same settings.</p>
</main>
</html>
`;
