import { readSupplyReport, supplyZonesSchema, type SupplyReport, type SupplyZone } from '@yes-clear/core/report';
import { database, type SupplyRow } from './database';

/** Where the supplier's reports are asked for. */
const ADDRESS = '/api/supply';

/** Zones that can be had: from the supplier, or those kept from earlier when it cannot be reached. */
export interface ZoneList {
  readonly zones: readonly SupplyZone[];
  /** Why only kept ones are listed; null when the supplier answered. */
  readonly offline: string | null;
}

async function ask(path: string): Promise<unknown> {
  const response = await fetch(`${ADDRESS}${path}`, { headers: { accept: 'application/json' }, signal: AbortSignal.timeout(8000) });
  if (!response.ok) throw new Error(`it answered ${response.status}`);
  return response.json();
}

const reason = (error: unknown): string =>
  error instanceof Error && error.message.startsWith('it answered') ? error.message : 'there is no connection';

export async function keptReports(): Promise<SupplyRow[]> {
  return database.supply.orderBy('zone').toArray();
}

/** Lists the zones; never fails. */
export async function supplyZones(): Promise<ZoneList> {
  try {
    return { zones: supplyZonesSchema.parse(await ask('')).zones, offline: null };
  } catch (error) {
    const kept = await keptReports();
    return { zones: kept.map(({ zone, report }) => ({ zone, name: report.name })), offline: reason(error) };
  }
}

export type SupplyFetch =
  { readonly ok: true; readonly report: SupplyReport; readonly keptFrom: string | null } | { readonly ok: false; readonly message: string };

/** One zone's report: fresh and then kept, or as it was kept. */
export async function supplyReport(zone: string, now = new Date()): Promise<SupplyFetch> {
  let why: string;
  try {
    const report = readSupplyReport(await ask(`/${encodeURIComponent(zone)}`));
    if (report.ok) {
      await database.supply.put({ zone, fetchedAt: now.toISOString(), report: report.value });
      return { ok: true, report: report.value, keptFrom: null };
    }
    why = report.error.message;
  } catch (error) {
    why = `The supplier cannot be reached: ${reason(error)}.`;
  }
  const kept = await database.supply.get(zone);
  if (kept) return { ok: true, report: kept.report, keptFrom: kept.fetchedAt };
  return { ok: false, message: `${why} No report of this zone was kept from earlier; what is entered stays as it is.` };
}
