import Papa from 'papaparse';
import { plainFigure, readSenml, type Heard } from '../recording';
import { fail, ok, type Outcome } from '../quantity';

/**
 * A file of sensor figures (SenML in JSON, RFC 8428) as a table whose columns are its names, to be taken like any other.
 *
 * @param nowMs the time that relative ones count from
 */
export function senmlTable(text: string, nowMs: number): Outcome<string> {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch (error) {
    const why = error instanceof Error ? error.message : '';
    return fail(
      'file',
      text.slice(0, 20),
      'a list of records in JSON (RFC 8428)',
      `This begins like sensor figures and is no JSON: ${why}.`,
    );
  }
  const heard = readSenml(data, nowMs);
  if (!heard.ok) return heard;
  const heads = new Map<string, string>();
  const rows = new Map<number, Map<string, string>>();
  const put = (one: Heard, value: number, unit: string): void => {
    // A column of conductivity may be taken for a meter of another scale: each cell says its unit.
    const bare = unit !== 'µS/cm' && unit !== 'ppm';
    heads.set(one.name, bare ? `${one.name} (${unit})` : one.name);
    const row = rows.get(one.atMs) ?? new Map<string, string>();
    rows.set(one.atMs, row);
    const figure = String(Number(value.toPrecision(10)));
    row.set(one.name, bare ? figure : `${figure} ${unit}`);
  };
  for (const one of heard.value.heard) {
    const plain = plainFigure(one);
    if (plain) put(one, plain.value, plain.unit);
  }
  const [mistimed] = heard.value.mistimed;
  if (rows.size === 0 && mistimed) return fail('file', mistimed.seconds, 'times in seconds since 1970', mistimed.says);
  if (rows.size === 0)
    return fail('file', null, 'figures in S/m, Cel, Pa, m3/s, m3', 'There is no figure in a unit that water has in this file.');
  const names = [...heads.keys()];
  const table = [...rows]
    .sort(([a], [b]) => a - b)
    .map(([at, row]) => [new Date(at).toISOString(), ...names.map((name) => row.get(name) ?? '')]);
  return ok(Papa.unparse([['time', ...names.map((name) => heads.get(name)!)], ...table]));
}
