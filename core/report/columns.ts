import type { Cells } from './cells';

export type ColumnRole = 'name' | 'unit' | 'value' | 'mean' | 'min' | 'max' | 'limit' | 'other';

/** Where a report keeps what, and where its rows begin. */
export interface Columns {
  readonly roles: readonly ColumnRole[];
  readonly labels: readonly string[];
  /** Index of the first row below the heading. */
  readonly firstRow: number;
}

const ROLES: readonly (readonly [ColumnRole, RegExp])[] = [
  [
    'limit',
    /limit|standard|p\.?c\.?v|mcl|guideline|max(imum)? (allowed|admissible|permitted|concentration|contaminant)|grenzwert|parametric|regulat|specification/i,
  ],
  ['mean', /mean|average|avg|median|mittel|moyenne|media/i],
  ['min', /\bmin/i],
  ['max', /\bmax|highest/i],
  ['unit', /unit|einheit|unit[eé]|unidad/i],
  ['value', /result|value|wert|concentration|level|found|resultat|r[eé]sultat|amount|measured|detected/i],
  ['name', /parameter|determinand|analyt|substance|test|component|constituent|name|stoff|element|contaminant/i],
];

const roleOf = (cell: string): ColumnRole | null => ROLES.find(([, words]) => words.test(cell))?.[0] ?? null;

/** Finds the heading of a table: the first row with two words of a heading and no figure. */
export function findColumns(cells: Cells): Columns | null {
  const at = cells.slice(0, 40).findIndex((row) => {
    const roles = row.map(roleOf).filter((role) => role !== null);
    const figures = row.filter((cell) => /^[<≤]?\s*\d/.test(cell)).length;
    return (
      roles.length >= 2 && figures === 0 && roles.some((role) => role === 'value' || role === 'mean' || role === 'unit' || role === 'max')
    );
  });
  const heading = cells[at];
  if (!heading) return null;
  const roles = heading.map((cell) => roleOf(cell) ?? 'other');
  if (!roles.includes('name')) roles[0] = 'name';
  return { roles, labels: heading, firstRow: at + 1 };
}

/** Columns a value can be taken from, the best first: the mean, then the result, then anything with figures. */
export function valueColumns({ roles, labels }: Columns): { readonly index: number; readonly label: string }[] {
  const order: readonly ColumnRole[] = ['mean', 'value', 'max', 'min', 'other'];
  return order.flatMap((role) => roles.flatMap((own, index) => (own === role ? [{ index, label: labels[index] ?? '' }] : [])));
}
