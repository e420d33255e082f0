import Papa from 'papaparse';
import { LONGEST_REPORT_TEXT } from './schema';
import { fail, ok, type Outcome } from '../quantity';

/** Rows of cells of a pasted or loaded text. */
export type Cells = readonly (readonly string[])[];

/** Cells of a line of plain text: parted by tabs, bars or two spaces and more. */
const byGaps = (line: string): string[] =>
  line
    .split(/\t|\s*\|\s*|\s{2,}/)
    .map((cell) => cell.trim())
    .filter((cell, i, all) => cell !== '' || (i > 0 && i < all.length - 1));

/** The delimiter a text is written with; null for the lines of a page or a PDF. */
function delimiterOf(lines: readonly string[]): string | null {
  const share = (sign: string): number => lines.filter((line) => line.includes(sign)).length / lines.length;
  if (share('\t') > 0.5) return '\t';
  if (share(';') > 0.5) return ';';
  // A comma parts cells only where it does not stand between two digits.
  const commaCells = lines.filter((line) => /[^\d],|,(?!\d)/.test(line)).length / lines.length;
  return commaCells > 0.5 ? ',' : null;
}

/**
 * Splits a report's text into cells: CSV of any delimiter, a table copied from a page, or text from a PDF.
 *
 * @returns an error when the text is longer than any report, or empty
 */
export function reportCells(text: string): Outcome<Cells> {
  if (text.length > LONGEST_REPORT_TEXT) {
    const size = text.length >= 1e6 ? `${(text.length / 1e6).toFixed(1)} million` : `${Math.round(text.length / 1000)} thousand`;
    return fail(
      'report',
      text.length,
      `at most ${LONGEST_REPORT_TEXT / 1000} thousand characters`,
      `This text has ${size} characters; a report of one water has at most ${LONGEST_REPORT_TEXT / 1000} thousand. Copy only the table of results.`,
    );
  }
  const lines = text
    .replace(/\u00a0|\u202f/g, ' ')
    .split(/\r?\n/)
    .filter((line) => line.trim() !== '');
  if (lines.length === 0) return fail('report', '', 'the text of a report', 'The report is empty: paste its table here.');
  const delimiter = delimiterOf(lines);
  if (delimiter === null) return ok(lines.map(byGaps));
  const parsed = Papa.parse<string[]>(lines.join('\n'), { delimiter, skipEmptyLines: 'greedy' });
  const rows = parsed.data.map((row) => row.map((cell) => cell.trim()));
  return rows.length > 0 ? ok(rows) : ok(lines.map(byGaps));
}
