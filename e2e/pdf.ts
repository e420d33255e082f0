import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** The text of a PDF, page after page, as an independent reader finds it; spaces of any kind as one. */
export async function pdfText(file: Uint8Array): Promise<string> {
  const document = await getDocument({ data: new Uint8Array(file), useSystemFonts: false, verbosity: 0 }).promise;
  const pages: string[] = [];
  for (let i = 1; i <= document.numPages; i++) {
    const { items } = await (await document.getPage(i)).getTextContent();
    pages.push(items.map((item) => ('str' in item ? `${item.str}${item.hasEOL ? ' ' : ''}` : '')).join(''));
  }
  return pages.join('\n').replaceAll(/[\s\u00a0\u202f\u2009]+/g, ' ');
}
