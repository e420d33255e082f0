import type { Content } from 'pdfmake/interfaces';

/** Signs the text's own font does not have, set in one that does (µ and Ω), or in others that mean the same. */
const GREEK = /[µμΩ]/;
const PLAIN: readonly (readonly [RegExp, string])[] = [
  // A thin space is missing too; a narrower word space stands for it.
  [/\u202f/g, '\u00a0'],
  [/→/g, 'to'],
  [/≤\s?/g, 'at most '],
  [/≥\s?/g, 'at least '],
];
const SUBSCRIPTS = '₀₁₂₃₄₅₆₇₈₉';

/** A text as the runs a PDF is set of: each with a font that has its signs. */
export function runs(text: string): Content[] {
  const plain = PLAIN.reduce((done, [sign, instead]) => done.replace(sign, instead), text);
  return (plain.match(/[µμΩ]+|[₀-₉]+|[^µμΩ₀-₉]+/g) ?? ['']).map((run): Content => {
    if (GREEK.test(run)) return { text: run.replaceAll('µ', 'μ'), font: 'Greek' };
    const low = SUBSCRIPTS.indexOf(run[0] ?? ' ');
    if (low >= 0) return { text: [...run].map((sign) => String(SUBSCRIPTS.indexOf(sign))).join(''), fontSize: 6.5 };
    return { text: run };
  });
}
