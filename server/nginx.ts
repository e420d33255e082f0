import { CONTENT_SECURITY, PERMISSIONS } from './app';

const kebab = (name: string): string => name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);

/** The page's policy as one header. */
export const contentSecurityHeader = (): string =>
  Object.entries(CONTENT_SECURITY)
    .map(([name, sources]) => `${kebab(name)} ${sources.join(' ')}`)
    .join('; ');

/**
 * Configuration of an nginx that serves the packaged app by https, with the headers our own server sends. Places in
 * CAPITALS are the host's to fill in.
 */
export function nginxExample(): string {
  const headers = `    add_header Content-Security-Policy "${contentSecurityHeader()}" always;
    add_header X-Content-Type-Options nosniff always;
    add_header X-Frame-Options DENY always;
    add_header Referrer-Policy no-referrer always;
    add_header Permissions-Policy "${PERMISSIONS}" always;`;
  return `# Yes Clear on a static host. Put this into /etc/nginx/conf.d/ and fill in what stands in CAPITALS.
server {
    listen ADDRESS:443 ssl;
    server_name NAME;
    ssl_certificate CERTIFICATE;
    ssl_certificate_key KEY;
    root FOLDER;

    gzip on;
    gzip_types text/css application/javascript application/json application/manifest+json image/svg+xml;
    gzip_min_length 1024;

${headers}

    # Names that hold their content's hash never change.
    location ^~ /assets/ {
        add_header Cache-Control "public, max-age=31536000, immutable" always;
${headers.replace(/^/gm, '    ')}
        try_files $uri =404;
    }
    # There is no supplier here: the app says so and goes on.
    location ^~ /api/ { return 404; }
    # Files as they are; every other path without a file ending is a page of the app.
    location ~ \\. {
        add_header Cache-Control no-cache always;
${headers.replace(/^/gm, '    ')}
        try_files $uri =404;
    }
    location / {
        add_header Cache-Control no-cache always;
${headers.replace(/^/gm, '    ')}
        try_files /index.html =404;
    }
}
`;
}
