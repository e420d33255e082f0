/** Hands something to the browser as a file to keep. */
export function download(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = Object.assign(document.createElement('a'), { href: url, download: name });
  link.click();
  // Some browsers read the address only after this turn.
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A title as part of a file's name: lower case, hyphens. */
export function plainName(title: string): string {
  const plain = title
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/ß/g, 'ss')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  return plain === '' ? 'system' : plain;
}
