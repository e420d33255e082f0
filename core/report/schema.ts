import { z } from 'zod';
import { between } from '../quantity';
import { SOLUTES } from '../water';

/** A supplier's report as it is kept: its text, and what was read from it. */

/** What a report can state of a water, in the basis it is stored in. */
export const REPORT_QUANTITIES = [...SOLUTES, 'ec25UScm', 'hardnessMgL', 'alkalinityMgL', 'pH', 'tdsMgL', 'temperatureC'] as const;

/** Longest report text that is kept and read, in characters: some thousand lines. */
export const LONGEST_REPORT_TEXT = 100_000;

export const reportSchema = z.strictObject({
  title: z.string().max(200),
  /** The text as pasted, so that it can be read again. */
  text: z.string().max(LONGEST_REPORT_TEXT),
  values: z.array(z.strictObject({ quantity: z.enum(REPORT_QUANTITIES), value: between(0, 300_000), below: z.boolean() })).max(60),
  /** Close the charge on sodium or chloride. */
  closeBalance: z.boolean(),
});

export type ReportQuantity = (typeof REPORT_QUANTITIES)[number];
export type ReportValue = z.infer<typeof reportSchema>['values'][number];
