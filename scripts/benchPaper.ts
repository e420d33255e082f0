import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

/** docs/benchmarks.md, of which each measuring command writes a part of its own. */
const PAPER = fileURLToPath(new URL('../docs/benchmarks.md', import.meta.url));
/** Parts in their order, each under its own heading. */
const HEADINGS = [
  '# Benchmarks',
  '## Rounds and Log',
  '## Choosing, and the years ahead',
  '## The log on training logs',
  '## The log on the untouched half',
  '## How truly faults are told',
] as const;
export type Heading = (typeof HEADINGS)[number];

/** Writes one part anew and leaves the others as they stand. */
export function writePart(heading: Heading, text: string): void {
  const old = readFileSync(PAPER, 'utf8');
  const parts = HEADINGS.map((one) => {
    if (one === heading) return `${one}\n\n${text.trim()}\n`;
    const from = old.indexOf(`${one}\n`);
    if (from < 0) return '';
    const next = old.indexOf('\n## ', from + 1);
    return old.slice(from, next < 0 ? undefined : next + 1).trimEnd() + '\n';
  });
  writeFileSync(PAPER, parts.filter((part) => part !== '').join('\n'));
}
