import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, value } from '../testing/close';
import { readReport, type ReadReport, type ReportRow } from './recognise';
import { readSupplyReport, supplyText } from './supply';

/** What was taken, as quantity → value (below the limit as "<value"). */
function taken(report: ReadReport): Record<string, number | string> {
  return Object.fromEntries(
    report.rows.flatMap((row) =>
      row.value
        ? [[row.value.quantity, row.value.below ? `<${Number(row.value.value.toPrecision(4))}` : Number(row.value.value.toPrecision(4))]]
        : [],
    ),
  );
}
const read = (text: string, column: number | null = null): ReadReport => value(readReport(text, column));
const rowOf = (report: ReadReport, name: RegExp): ReportRow => report.rows.find((row) => name.test(row.name))!;

describe('layouts', () => {
  it('a table copied from a page, with a mean between a minimum and a maximum', () => {
    const text = [
      'Parameter\tUnits\tPCV\tMin\tMean\tMax',
      'Calcium\tmg/l Ca\t\t98\t104.5\t111',
      'Chloride\tmg/l\t250\t18\t22\t26',
      'Nitrate\tmg/l NO3\t50\t20\t25.1\t31',
      'Conductivity at 20 °C\tµS/cm\t2500\t500\t531\t566',
      'Hydrogen ion\tpH units\t6.5–9.5\t7.2\t7.4\t7.6',
    ].join('\n');
    expect(taken(read(text))).toEqual({ Ca: 104.5, Cl: 22, NO3: 25.1, ec25UScm: 590, pH: 7.4 });
    const report = read(text);
    expect(report.columns.map((column) => column.label)).toEqual(['Mean', 'Max', 'Min']);
    expect(taken(read(text, 5))).toMatchObject({ Ca: 111, Cl: 26 });
    expect(rowOf(report, /Conductivity/).says).toContain('given at 20 °C, brought to 25 °C');
  });
  it('CSV with commas and quoted names', () => {
    const text = '"Determinand","Unit","Result"\n"Sodium, total","mg/l","28"\n"Sulphate","mg/l","45"\n"Turbidity","NTU","0.2"\n';
    const report = read(text);
    expect(taken(report)).toEqual({ Na: 28, SO4: 45 });
    expect(rowOf(report, /Turbidity/)).toMatchObject({ fate: 'notUsed' });
  });
  it('CSV with semicolons, decimal commas and German names', () => {
    const text =
      'Parameter;Einheit;Wert\nGesamthärte;°dH;15,9\nSäurekapazität;mmol/l;2,9\nNatrium;mg/l;12,4\nNitrat;mg/l;<0,5\nLeitfähigkeit 25 °C;mS/m;59,0\n';
    const found = taken(read(text));
    expectWithin(found['hardnessMgL'] as number, 15.9 * 17.848, 1e-3);
    expectWithin(found['alkalinityMgL'] as number, 2.9 * 50.0435, 1e-3);
    expect(found).toMatchObject({ Na: 12.4, NO3: '<0.5', ec25UScm: 590 });
  });
  it('the element written out is the basis', () => {
    const of = (line: string): Record<string, unknown> => taken(read(`Calcium 50 mg/l\n${line}`));
    expectWithin(of('Nitrate measured as Nitrogen 2.7 mg/l')['NO3'] as number, (2.7 * 62.005) / 14.007, 1e-3);
    expectWithin(of('Nitrate-Nitrogen 2.7 mg/l')['NO3'] as number, (2.7 * 62.005) / 14.007, 1e-3);
    expectWithin(of('Nitrat-Stickstoff 2,7 mg/l')['NO3'] as number, (2.7 * 62.005) / 14.007, 1e-3);
    expectWithin(of('Ammonium-Stickstoff 0,2 mg/l')['NH4N'] as number, 0.2, 1e-6);
    expectWithin(of('Phosphate as phosphorus 0.3 mg/l')['PO4'] as number, (0.3 * 94.971) / 30.974, 1e-3);
  });
  it('an acid capacity is an equivalent and names its own end point; a base capacity is no pH; alkalinity in mmol asks', () => {
    expectWithin(taken(read('Säurekapazität bis pH 4,3  2,9 mmol/l'))['alkalinityMgL'] as number, 145, 0.002);
    const base = read('Basekapazität bis pH 8,2  0,30 mmol/l\nCalcium 50 mg/l');
    expect(taken(base)['pH']).toBeUndefined();
    expect(rowOf(base, /Base/)).toMatchObject({ fate: 'notUsed' });
    const asks = rowOf(read('Alkalinity  2.9 mmol/L\nCalcium 50 mg/l'), /Alkalinity/);
    expect(asks).toMatchObject({ fate: 'refused' });
    expect(asks!.says).toContain('can mean 145.1 mg/L as CaCO₃ (by its charge) or 290.3');
    expect(taken(read('Total chlorine 0.9 mg/l\nFree chlorine 0.5 mg/l'))['chlorine']).toBe(0.5);
  });
  it('lines of a PDF, with single spaces and a limit behind', () => {
    const text = [
      'Yearly results, zone Example',
      'Calcium mg/l 55.2 200',
      'Total Hardness as CaCO3 mg/l 174',
      'Silica (as SiO2) mg/l 7.1',
      'Ammonium <0.05 mg/l',
      'NO3-N 2.7 mg/L',
      'Boron 45 µg/l 1000',
      'TDS 354 ppm',
    ].join('\n');
    expect(taken(read(text))).toEqual({ Ca: 55.2, hardnessMgL: 174, SiO2: 7.1, NH4N: '<0.03882', NO3: 11.95, B: 0.045, tdsMgL: 354 });
  });
  it('names and figures with colons', () => expect(taken(read('pH: 7.6\nChloride: 38 mg/L\nK: 4'))).toEqual({ pH: 7.6, Cl: 38, K: 4 }));
});

describe('units and bases', () => {
  // Factors of section 1 of the water chapter: exact ratios of molar masses.
  it.each([
    ['Nitrate as N  mg/l  10.1653', 'NO3', 45],
    ['Nitrate (NO3-N)  mg/L  10.1653', 'NO3', 45],
    ['Nitrate  mg N/l  10.1653', 'NO3', 45],
    ['Nitrate  mg/l  45', 'NO3', 45],
    ['Ammonium as NH4  mg/l  1.2878', 'NH4N', 1],
    ['Ammonia as N  µg/l  1000', 'NH4N', 1],
    ['Phosphate  mg/l  1', 'PO4', 1],
    ['Phosphorus  mg/l  0.3261', 'PO4', 1],
    ['Phosphate as P  mg/l  0.3261', 'PO4', 1],
    ['Silicon  mg/l  10', 'SiO2', 21.393],
    ['Silica as Si  mg/l  10', 'SiO2', 21.393],
    ['Bicarbonate  mg/l  121.93', 'alkalinityMgL', 100],
    ['Alkalinity as HCO3  mg/l  121.93', 'alkalinityMgL', 100],
    ['Alkalinity as CaCO3  mg/l  100', 'alkalinityMgL', 100],
    ['Calcium hardness  mg/l as CaCO3  150', 'Ca', 60.065],
    ['Calcium as CaCO3  mg/l  150', 'Ca', 60.065],
    ['Total hardness as Ca  mg/l  100', 'hardnessMgL', 249.73],
    ['Hardness  °dH  14.007', 'hardnessMgL', 250],
    ['Hardness (Clark)  17.539', 'hardnessMgL', 250],
    ['Hardness (French)  25', 'hardnessMgL', 250],
    ['Hardness  gpg  14.604', 'hardnessMgL', 250],
    ['Hardness  mmol/l  2.4978', 'hardnessMgL', 250],
    ['Hardness  meq/l  4.9957', 'hardnessMgL', 250],
    ['Calcium  mmol/l  2', 'Ca', 80.156],
    ['Calcium  meq/l  4', 'Ca', 80.156],
    ['Iron  µg/L  120', 'Fe', 0.12],
    ['Electrical conductivity  mS/m  59', 'ec25UScm', 590],
    ['Conductivity  mS/cm  0.59', 'ec25UScm', 590],
    ['Conductivity  dS/m  0.59', 'ec25UScm', 590],
    ['Temperature  °F  50', 'temperatureC', 10],
    ['Sodium  12–18 mg/l', 'Na', 15],
  ] as const)('%s', (line, quantity, expected) => {
    const found = read(line).rows.find((row) => row.value)?.value;
    expect(found?.quantity).toBe(quantity);
    expectWithin(found!.value, expected, 0.001);
  });
  it('says when a unit or a basis was taken for granted', () => {
    expect(read('Calcium 55').rows[0]!.says).toBe('Calcium 55 mg/L, taken as mg/L');
    expect(read('Nitrate mg/l 45').rows[0]!.says).toContain('taken as NO3, for no basis is stated');
    expect(read('Nitrate as N mg/l 10').rows[0]!.says).toContain('stated as N');
  });
});

describe('what is not taken', () => {
  it.each([
    ['Sodium 1,234 mg/l', 'ambiguous', /can mean 1234 or 1.234/],
    ['Nitrate n.d. mg/l', 'noValue', /limit of detection is not stated/],
    ['pH 77', 'refused', /pH is 77; accepted is 0 to 14/],
    ['Vanadium 3 µg/l', 'unknown', /not known here/],
    ['Lead 3 µg/l', 'notUsed', /nothing here depends on it/],
    ['Nitrite 0.1 mg/l', 'notUsed', /nothing here depends on it/],
  ] as const)('%s: %s', (line, fate, says) => {
    const row = read(`Calcium 55 mg/l\n${line}`).rows[1]!;
    expect([row.fate, row.value]).toEqual([fate, null]);
    expect(row.says).toMatch(says);
  });
  it('a second figure for the same thing', () => {
    const row = read('Nitrate 25 mg/l\nNitrate as N 5.6 mg/l').rows[1]!;
    expect(row).toMatchObject({ fate: 'repeated' });
    expect(row.says).toContain('already taken from line 1');
  });
  it('a comma elsewhere in the report settles what a comma means', () =>
    expect(taken(read('Sodium 1,234 mg/l\nChloride 0,5 mg/l'))).toEqual({ Na: 1.234, Cl: 0.5 }));
});

describe('texts that are no report', () => {
  const message = (text: string): string => {
    const outcome = readReport(text);
    return outcome.ok ? '' : outcome.error.message;
  };
  it('empty', () => expect(message('  \n ')).toContain('The report is empty'));
  it('prose', () =>
    expect(message('Dear customer,\nyour water is fine.')).toMatch(/Nothing in this text is known here \(it begins “Dear customer/));
  it('five megabytes', () => expect(message('x'.repeat(5_000_000))).toMatch(/5\.0 million characters; .* at most 100 thousand/));
  it('waste water', () => expect(read('BOD 12 mg/l\nCOD 40 mg/l\nChloride 90 mg/l').foreign).toMatch(/waste water: it lists BOD.*COD/));
  it('a pool', () => expect(read('Free chlorine 1.5 mg/l\nCyanuric acid 40 mg/l\npH 7.4').foreign).toContain('pool water'));
  it('a supply is no foreigner', () => expect(read('Chloride 12 mg/l\nLead 1 µg/l').foreign).toBeNull());
  it('any text at all: refused or read, never an exception, never NaN', () => {
    const word = fc.constantFrom(
      'Calcium',
      'Nitrate as N',
      'pH',
      'mg/l',
      '<0,05',
      '1,234',
      '12.5',
      ';',
      '\t',
      ',',
      '\n',
      'µg/L',
      '°dH',
      '"',
      'n.d.',
      '–',
      'Mean',
      'Unit',
      '25 °C',
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string({ maxLength: 300 }),
          fc.array(word, { maxLength: 60 }).map((words) => words.join(' ')),
        ),
        (text) => {
          const outcome = readReport(text);
          if (!outcome.ok) {
            expect(outcome.error.message.length).toBeGreaterThan(15);
            return;
          }
          for (const row of outcome.value.rows) {
            if (row.value) expect(Number.isFinite(row.value.value) && row.value.value >= 0).toBe(true);
            expect(row.says).not.toMatch(/NaN|undefined/);
          }
        },
      ),
      { numRuns: 600 },
    );
  });
});

describe('the supplier', () => {
  const report = {
    zone: 'a1',
    name: 'Example zone',
    period: { from: '2026-01-01', to: '2026-06-30' },
    rows: [
      { parameter: 'Calcium', unit: 'mg/l', mean: '12,4' },
      { parameter: 'Nitrate', unit: 'mg/l', mean: '<0,5' },
    ],
  };
  it('is read like a page', () => {
    expect(taken(read(supplyText(value(readSupplyReport(report)))))).toEqual({ Ca: 12.4, NO3: '<0.5' });
    expectNear(read(supplyText(report)).rows.length, 2, 0);
  });
  it.each([
    [{ ...report, rows: [] }, 'rows'],
    [{ ...report, period: { from: 'spring', to: '2026-06-30' } }, 'period.from'],
    [null, 'the whole'],
  ])('says where an answer is wrong: %#', (data, where) => {
    const outcome = readSupplyReport(data);
    expect(outcome.ok ? '' : outcome.error.message).toContain(`${where} is not as documented`);
  });
});
