import type { ReportQuantity, ReportValue } from './schema';
import { fail, ok, readNumber, type Outcome } from '../quantity';
import { BALANCE_CHARGE, CACO3_G_PER_EQ, compensated, isSolute, MOLAR_MASS, type Solute } from '../water';
import { analyteOf, BASES, HARDNESS_SCALES, plainDigits, type Analyte, type Basis } from './analytes';
import { reportCells, type Cells } from './cells';
import { findColumns, valueColumns, type Columns } from './columns';

/** What became of one row of a report. */
export type RowFate = 'taken' | 'notUsed' | 'unknown' | 'noValue' | 'ambiguous' | 'repeated' | 'refused';

export interface ReportRow {
  /** Number of the row in the text, from 1. */
  readonly line: number;
  /** Name, figure and unit as the report has them. */
  readonly name: string;
  readonly figure: string;
  readonly unit: string;
  readonly fate: RowFate;
  /** What it was taken for, or why it was not. */
  readonly says: string;
  readonly value: ReportValue | null;
}

export interface ReadReport {
  readonly rows: readonly ReportRow[];
  /** Columns the figures can be taken from; the one used comes first unless another was asked for. */
  readonly columns: readonly { readonly index: number; readonly label: string }[];
  readonly column: number | null;
  /** Why this is not the report of a supply; null when it may be. */
  readonly foreign: string | null;
}

/** Ranges outside which a figure was surely misread, in the stored basis. */
const ACCEPTED: Readonly<Record<Exclude<ReportQuantity, Solute>, readonly [number, number, string]>> = {
  ec25UScm: [0.055, 200_000, 'µS/cm'],
  hardnessMgL: [0, 20_000, 'mg/L as CaCO₃'],
  alkalinityMgL: [0, 20_000, 'mg/L as CaCO₃'],
  pH: [0, 14, ''],
  tdsMgL: [0, 300_000, 'mg/L'],
  temperatureC: [0.1, 60, '°C'],
};

/** Spellings of units of amount, and mg/L in one of each. */
const AMOUNT_UNITS: readonly (readonly [RegExp, number])[] = [
  [/(µ|μ|u|mc)g\s*[a-z0-9]*\s*\/\s*l|ppb|microgram/i, 0.001],
  [/(^|[^a-zµμ])g\s*\/\s*l/i, 1000],
  [/mg\s*[a-z0-9]*\s*\/\s*l|ppm|mg\/dm|g\s*\/\s*m(3|³)|mg\s*l-1|milligram/i, 1],
];
const CONDUCTIVITY_UNITS: readonly (readonly [RegExp, number])[] = [
  [/ms\s*\/\s*m(?!m)|millisiemens per m/i, 10],
  [/ds\s*\/\s*m/i, 1000],
  [/ms\s*\/?\s*cm/i, 1000],
  [/(µ|μ|u)s\s*\/?\s*cm|umhos|µmhos|micros/i, 1],
];

/** Units that a cell may hold beside anything else. */
const UNIT_WORD =
  /((µ|μ|u|m|k)?g(\s*[A-Za-z0-9]+)?\s*\/\s*(l|dm3|m3|m³)(\s*(as\s+)?[A-Z][A-Za-z0-9]*)?|(µ|μ|u|m|d)s\s*\/\s*(cm|m)|pp[mb]|°\s?[dfe]H?\b|°C|gpg|mmol\s*\/\s*l|m(eq|val)\s*\/\s*l|ph units?|ntu|fnu|\/100\s?ml|clark|mv)/i;

/** The element written out: "Nitrate measured as Nitrogen", "Ammonium-Stickstoff", "Phosphate as phosphorus". */
const ELEMENT_NAMES: readonly (readonly [RegExp, Basis])[] = [
  [
    /(?:nitr|ammoni|amoni)\w*[\s,(]*(?:measured |expressed |gemessen )?(?:as |als |en |como |-|–)\s*(?:nitrogen|stickstoff|azote|nitr[oó]geno)/i,
    'N',
  ],
  [
    /(?:phosph|fosf)\w*[\s,(]*(?:measured |expressed |gemessen )?(?:as |als |en |como |-|–)\s*(?:phosphor(?:us)?|phosphore|f[oó]sforo)\b/i,
    'P',
  ],
];

/** Basis stated in a text: "as N", "(NO3)", "NH4-N", "mg N/l". */
function statedBasis(text: string): Basis | null {
  const plain = plainDigits(text);
  const named = /\b(?:as|als|en|como)\s+(CaCO3|SiO2|PO4|NO3|NH4|NH3|HCO3|Cl2|Ca|Mg|Si|N|P|B)\b/i.exec(plain)?.[1];
  const dashed = /(?:NO3|NO₃|NH4|NH3|nitrate|ammonia|ammonium|PO4|phosphate)\s?[-–]\s?(N|P)\b/i.exec(plain)?.[1];
  const spelled = ELEMENT_NAMES.find(([name]) => name.test(plain))?.[1];
  const inUnit =
    /\bmg\s*(CaCO3|SiO2|PO4|NO3|NH4|HCO3|N|P|Si)\s*\/\s*l/i.exec(plain)?.[1] ??
    /mg\s*\/\s*l\s*(CaCO3|SiO2|PO4|NO3|NH4|HCO3|N|P|Si|Ca)\b/i.exec(plain)?.[1];
  const found = named ?? dashed ?? spelled ?? inUnit;
  return found ? ((Object.keys(BASES) as Basis[]).find((basis) => basis.toLowerCase() === found.toLowerCase()) ?? null) : null;
}

/** How a whole report writes its numbers: a decimal comma anywhere, with no decimal point beside it, settles it. */
function decimalSign(cells: Cells): 'comma' | 'point' | 'unknown' {
  const all = cells.flat().join(' ');
  const comma = /\d,\d{1,2}(?!\d)|\b0,\d/.test(all);
  const point = /\d\.\d/.test(all);
  if (comma === point) return 'unknown';
  return comma ? 'comma' : 'point';
}

type Figure =
  | { readonly kind: 'number'; readonly value: number; readonly below: boolean; readonly note: string }
  | { readonly kind: 'ambiguous'; readonly says: string }
  | { readonly kind: 'none'; readonly says: string };

const NOT_FOUND = /^(n\.?d\.?|nd|not detected|<\s*(lod|loq|dl)|below detection|bdl|n\.?n\.?|nicht nachweisbar)$/i;

/** Reads a figure of a report: "<0,05", "12–18", "1,234", "7.6 (mean)". */
function readFigure(text: string, sign: 'comma' | 'point' | 'unknown'): Figure {
  const trimmed = text.trim();
  if (trimmed === '' || /^[-–—*/]+$/.test(trimmed)) return { kind: 'none', says: 'no figure' };
  if (NOT_FOUND.test(trimmed)) return { kind: 'none', says: 'not detected, but the limit of detection is not stated' };
  const below = /^(<|≤|less than|below|kleiner)/i.test(trimmed);
  const bare = trimmed.replace(/^(<|≤|>|≥|=|~|≈|less than|below|kleiner|ca\.?)\s*/i, '');
  const written =
    sign === 'comma' ? bare.replace(/\.(?=\d{3}(\D|$))/g, '').replace(',', '.') : sign === 'point' ? bare.replace(/,(?=\d{3})/g, '') : bare;
  const first = readNumber(written);
  if (first.kind === 'ambiguous')
    return { kind: 'ambiguous', says: `“${first.typed}” can mean ${first.readings[0]} or ${first.readings[1]}: write it plainly` };
  if (first.kind === 'none') return { kind: 'none', says: `“${trimmed.slice(0, 24)}” is not a figure` };
  const until = /^\s*(?:-|–|to|bis)\s*(\d.*)$/i.exec(first.rest);
  const second = until ? readNumber(until[1]!) : null;
  if (second?.kind === 'number' && second.value >= first.value)
    return { kind: 'number', value: (first.value + second.value) / 2, below, note: `middle of ${first.value} to ${second.value}` };
  return { kind: 'number', value: first.value, below, note: '' };
}

/** A figure turned into what is stored, with words for how. */
function converted(analyte: Analyte, figure: number, unit: string, context: string): Outcome<{ value: number; note: string }> {
  const unknownUnit = (): Outcome<never> =>
    fail('unit', unit, 'a unit of this figure', `“${unit}” is not a unit of ${analyte.label.toLowerCase()} known here`);
  switch (analyte.kind) {
    case 'pH':
      return ok({ value: figure, note: '' });
    case 'temperature':
      return ok(/°?\s?F\b/.test(unit) ? { value: (figure - 32) / 1.8, note: 'from °F' } : { value: figure, note: '' });
    case 'conductivity': {
      const scale = unit === '' ? 1 : CONDUCTIVITY_UNITS.find(([spelling]) => spelling.test(unit))?.[1];
      if (scale === undefined) return unknownUnit();
      const at20 = /20\s?°?\s?c/i.test(context);
      const value = figure * scale;
      const from = scale === 1 ? '' : `from ${unit}`;
      return ok(
        at20
          ? { value: compensated(value, 20), note: 'given at 20 °C, brought to 25 °C' }
          : { value, note: unit === '' ? 'taken as µS/cm' : from },
      );
    }
    case 'equivalent': {
      if (/mmol|mol|mval|m(illi)?eq/i.test(unit)) return ok({ value: figure * CACO3_G_PER_EQ, note: `from ${unit}, by its charge` });
      const scale = HARDNESS_SCALES.find(([spelling]) => spelling.test(unit));
      if (scale) return ok({ value: figure * scale[1], note: `from ${scale[2]}` });
      return amount(analyte, figure, unit, context);
    }
    case 'hardness': {
      if (analyte.id === 'alkalinity' && /mmol/i.test(unit))
        return fail(
          'unit',
          unit,
          'mg/L as CaCO₃, meq/L, °dH',
          `Alkalinity in mmol/L can mean ${digits(figure * CACO3_G_PER_EQ)} mg/L as CaCO₃ (by its charge) or ${digits(2 * figure * CACO3_G_PER_EQ)} (as CaCO₃): write it in mg/L or meq/L`,
        );
      const scale = HARDNESS_SCALES.find(([spelling]) => spelling.test(unit) || (unit === '' && spelling.test(context)));
      if (scale) return ok({ value: figure * scale[1], note: `from ${scale[2]}` });
      return amount(analyte, figure, unit, context);
    }
    default:
      return amount(analyte, figure, unit, context);
  }
}

/** Amounts: mg/L and its kin, in the basis stated or the usual one. */
function amount(analyte: Analyte, figure: number, unit: string, context: string): Outcome<{ value: number; note: string }> {
  const basis = statedBasis(context) ?? analyte.basis;
  const factor = analyte.factors && basis ? (analyte.factors[basis] ?? (analyte.basis ? analyte.factors[analyte.basis] : 1)) : 1;
  const molar = /mmol/i.test(unit) ? 1 : /m(illi)?eq|mval/i.test(unit) ? 2 : 0;
  if (molar > 0 && analyte.quantity && isSolute(analyte.quantity)) {
    const valence = molar === 1 ? 1 : Math.abs(BALANCE_CHARGE[analyte.quantity]) || 1;
    return ok({ value: (figure * MOLAR_MASS[analyte.quantity]) / valence, note: `from ${unit}` });
  }
  const scale = unit === '' ? 1 : AMOUNT_UNITS.find(([spelling]) => spelling.test(unit))?.[1];
  if (scale === undefined)
    return fail('unit', unit, 'mg/L, µg/L, g/L', `“${unit}” is not a unit of ${analyte.label.toLowerCase()} known here`);
  const notes = [unit === '' ? 'taken as mg/L' : scale === 1 ? '' : `from ${unit}`, basisNote(analyte, statedBasis(context), basis)];
  return ok({ value: figure * scale * (factor ?? 1), note: notes.filter(Boolean).join(', ') });
}

/** Says in what basis a figure was taken, where people mix bases up: nobody states calcium as anything but calcium unasked. */
function basisNote(analyte: Analyte, stated: Basis | null, used: Basis | undefined): string {
  if (!analyte.factors || !used) return '';
  if (stated) return `stated as ${used}`;
  return used === 'Ca' || used === 'Mg' || analyte.id === 'bicarbonate' ? '' : `taken as ${used}, for no basis is stated`;
}

/** Name, figure and unit of a row, whatever its layout. */
interface Parts {
  readonly name: string;
  readonly figure: string;
  readonly unit: string;
}

/** A row under a heading: each thing from its own column, a unit also from the name or the figure's own cell. */
function partsByColumns(row: readonly string[], { roles }: Columns, column: number | null): Parts {
  const at = (role: string): string => row[roles.indexOf(role as never)] ?? '';
  const name = at('name');
  const cell = column === null ? '' : (row[column] ?? '');
  const own = UNIT_WORD.exec(cell)?.[0] ?? '';
  const unit = at('unit') || own || (UNIT_WORD.exec(name)?.[0] ?? '');
  return { name, figure: cell.replace(own, '').trim(), unit };
}

/** A line without a heading: the name up to the first figure or unit, then whichever comes. */
function partsByLine(row: readonly string[]): Parts {
  const text = row.join('  ').replace(/^(["'\s]*)/, '');
  // A digit that belongs to a formula or a temperature (NO3, SiO2, 25 °C) is not the figure.
  const masked = text
    .replace(/\b(NO|NH|SO|PO|SiO|HCO|CaCO|CO|Cl)\d/gi, (formula) => formula.replace(/\d/g, '#'))
    .replace(/\b(20|25)(\.0)?\s?°?\s?C\b/gi, (t) => '#'.repeat(t.length))
    // Nor is the end point of a titration: "bis pH 4,3".
    .replace(/\b(?:bis|to|jusqu'à|hasta|at|bei)?\s*pH\s*(?:8[.,]2|4[.,]3|4[.,]5)\b/gi, (t) => '#'.repeat(t.length));
  const start =
    /(?:^|[\s:=(])((?:<|≤|less than\s|n\.?d\.?(?=\s|$)|not detected)?\s*\d[\d.,]*(?:\s*[-–]\s*\d[\d.,]*)?|n\.?d\.?(?=\s|$)|not detected)/i.exec(
      masked,
    );
  if (!start) return { name: text, figure: '', unit: UNIT_WORD.exec(text)?.[0] ?? '' };
  const from = start.index + start[0].length - start[1]!.length;
  const figure = text.slice(from, from + start[1]!.length).trim();
  const name = text.slice(0, from).trim();
  const after = text.slice(from + start[1]!.length);
  const behind = /^\s*/.exec(after)![0].length < 3 ? UNIT_WORD.exec(after.slice(0, 28))?.[0] : undefined;
  const unit = UNIT_WORD.exec(name)?.[0] ?? behind ?? UNIT_WORD.exec(after)?.[0] ?? '';
  return { name, figure, unit };
}

const QUANTITY_LABEL: Partial<Record<ReportQuantity, string>> = {
  ec25UScm: 'µS/cm at 25 °C',
  hardnessMgL: 'mg/L as CaCO₃',
  alkalinityMgL: 'mg/L as CaCO₃',
  NO3: 'mg/L as NO₃',
  NH4N: 'mg/L as N',
  PO4: 'mg/L as PO₄',
  SiO2: 'mg/L as SiO₂',
  pH: '',
  temperatureC: '°C',
};

const digits = (value: number): string => String(Number(value.toPrecision(4)));

function readRow(parts: Parts, line: number, sign: 'comma' | 'point' | 'unknown', seen: Map<ReportQuantity, number>): ReportRow | null {
  const analyte = analyteOf(parts.name);
  const base = {
    line,
    name:
      parts.name
        .replace(UNIT_WORD, '')
        .replace(/[\s:,(]+$/, '')
        .trim() || parts.name,
    figure: parts.figure,
    unit: parts.unit,
  };
  const row = (fate: RowFate, says: string, value: ReportValue | null = null): ReportRow => ({ ...base, fate, says, value });
  if (!analyte) {
    // A line with neither a known name nor a figure is a heading or an address.
    return parts.figure === '' || !/[a-z]{2}/i.test(parts.name) ? null : row('unknown', 'not known here');
  }
  if (analyte.quantity === null || analyte.id === 'nitrite') {
    return parts.figure === '' ? null : row('notUsed', `${analyte.label}: nothing here depends on it`);
  }
  const figure = readFigure(parts.figure, sign);
  if (figure.kind === 'none') return parts.figure === '' && parts.unit === '' ? null : row('noValue', `${analyte.label}: ${figure.says}`);
  if (figure.kind === 'ambiguous') return row('ambiguous', `${analyte.label}: ${figure.says}`);
  const context = `${parts.name} ${parts.unit}`;
  const outcome = converted(analyte, figure.value, parts.unit, context);
  if (!outcome.ok) return row('refused', outcome.error.message);
  const { quantity } = analyte;
  const [low, high, unit] = isSolute(quantity) ? ([0, 300_000, 'mg/L'] as const) : ACCEPTED[quantity];
  const { value } = outcome.value;
  if (!(value >= low && value <= high))
    return row('refused', `${analyte.label} is ${digits(value)}; accepted is ${low} to ${high} ${unit}`.trim());
  const before = seen.get(quantity);
  if (before !== undefined) return row('repeated', `${analyte.label}: already taken from line ${before}`);
  seen.set(quantity, line);
  const stored = { quantity, value, below: figure.below };
  const says = [
    `${analyte.label} ${figure.below ? 'below ' : ''}${digits(value)} ${QUANTITY_LABEL[quantity] ?? 'mg/L'}`.trim(),
    outcome.value.note,
    figure.note,
  ];
  return row('taken', says.filter(Boolean).join(', '), stored);
}

/** Why a report is not of a supply: it lists what only waste water or a pool is tested for. */
function foreignReason(rows: readonly ReportRow[], names: readonly string[]): string | null {
  const kinds = names.map((name) => analyteOf(name)?.id);
  const listed = (id: string): string[] => names.filter((_, i) => kinds[i] === id);
  const waste = listed('waste');
  const pool = listed('pool');
  const taken = rows.filter((row) => row.fate === 'taken').length;
  const show = (list: readonly string[]): string =>
    list
      .slice(0, 3)
      .map((name) => name.replace(/\s{2,}.*/, '').slice(0, 30))
      .join(', ');
  if (waste.length >= 2)
    return `This is a report on waste water: it lists ${show(waste)}. The report of a supply lists hardness, chloride, nitrate.`;
  if (pool.length >= 1 && taken < 6)
    return `This is a report on pool water: it lists ${show(pool)}. The report of a supply lists hardness, chloride, nitrate.`;
  return null;
}

/**
 * Reads a supply or laboratory report from text: what each row is, in what unit and basis, and what it was taken for.
 * Nothing is guessed silently: a missing unit or basis is named, an ambiguous number is left out.
 *
 * @param column of the figures, when the report has several; the mean or the result otherwise
 * @returns an error when the text is too long, empty, or holds nothing that is known here
 */
export function readReport(text: string, column: number | null = null): Outcome<ReadReport> {
  const split = reportCells(text);
  if (!split.ok) return split;
  const cells = split.value;
  const found = findColumns(cells);
  const columns = found ? valueColumns(found) : [];
  const chosen = column ?? columns[0]?.index ?? null;
  const sign = decimalSign(cells);
  const seen = new Map<ReportQuantity, number>();
  const names: string[] = [];
  const rows = cells.slice(found?.firstRow ?? 0).flatMap((row, i) => {
    const parts = found && chosen !== null && row.length > 1 ? partsByColumns(row, found, chosen) : partsByLine(row);
    names.push(parts.name);
    const read = readRow(parts, (found?.firstRow ?? 0) + i + 1, sign, seen);
    return read ? [read] : [];
  });
  if (!rows.some((row) => row.fate !== 'unknown')) {
    const heading = (cells[0] ?? []).join(', ').slice(0, 60);
    return fail(
      'report',
      heading,
      'rows such as “Calcium 55 mg/L”',
      `Nothing in this text is known here (it begins “${heading}”). A row has a name, a figure and a unit, such as “Calcium 55 mg/L”.`,
    );
  }
  return ok({ rows, columns, column: chosen, foreign: foreignReason(rows, names) });
}
