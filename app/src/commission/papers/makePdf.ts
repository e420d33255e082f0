import type { Paper } from '@yes-clear/core/commission';
import greekBold from '@fontsource/noto-sans/files/noto-sans-greek-700-normal.woff?url';
import greek from '@fontsource/noto-sans/files/noto-sans-greek-400-normal.woff?url';
import signs from '@fontsource/noto-sans/files/noto-sans-latin-400-normal.woff?url';
import bold from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff?url';
import normal from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff?url';
import pdfMake from 'pdfmake/build/pdfmake';
import { definitionOf, type Setting } from './definition';

const whole = (url: string): string => new URL(url, location.href).href;

/** A paper as a PDF file, its fonts in it; made here, without any server. */
export async function makePdf(paper: Paper, setting: Setting): Promise<Blob> {
  pdfMake.setFonts({
    Atkinson: { normal: whole(normal), bold: whole(bold), italics: whole(normal), bolditalics: whole(bold) },
    Signs: { normal: whole(signs), bold: whole(signs), italics: whole(signs), bolditalics: whole(signs) },
    Greek: { normal: whole(greek), bold: whole(greekBold), italics: whole(greek), bolditalics: whole(greekBold) },
  });
  return pdfMake.createPdf(definitionOf(paper, setting)).getBlob();
}
