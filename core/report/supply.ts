import { z } from 'zod';
import { fail, ok, type Outcome } from '../quantity';

/**
 * A supplier's report by zone, as the server hands it out. Documented in docs/supply-reports.md.
 * Rows are what a printed report has: name, figure and unit as text, read by `readReport` like a pasted one.
 */
export const supplyReportSchema = z.strictObject({
  zone: z.string().min(1).max(40),
  name: z.string().min(1).max(120),
  period: z.strictObject({ from: z.iso.date(), to: z.iso.date() }),
  rows: z
    .array(z.strictObject({ parameter: z.string().max(120), unit: z.string().max(40), mean: z.string().max(40) }))
    .min(1)
    .max(200),
});
export const supplyZonesSchema = z.strictObject({
  zones: z.array(z.strictObject({ zone: z.string().min(1).max(40), name: z.string().min(1).max(120) })).max(500),
});
export type SupplyReport = z.infer<typeof supplyReportSchema>;
export type SupplyZone = z.infer<typeof supplyZonesSchema>['zones'][number];

/** Checks what the server sent. */
export function readSupplyReport(data: unknown): Outcome<SupplyReport> {
  const parsed = supplyReportSchema.safeParse(data);
  if (parsed.success) return ok(parsed.data);
  const issue = parsed.error.issues[0];
  const where = issue?.path.join('.') || 'the whole';
  return fail(
    'supplyReport',
    where,
    'a report with zone, name, period and rows',
    `The supplier's answer cannot be used: ${where} is not as documented.`,
  );
}

/** The text of a supply report, as if it had been copied from a page. */
export const supplyText = (report: SupplyReport): string =>
  ['Parameter\tUnit\tMean', ...report.rows.map((row) => `${row.parameter}\t${row.unit}\t${row.mean}`)].join('\n');
