import { readFact, writeFact } from './database';

/** How often each cause was confirmed in this workshop, by its id. */
export type ConfirmedCauses = Readonly<Record<string, number>>;

/** What was confirmed so far; what cannot be read counts as nothing. */
export async function confirmedCauses(): Promise<ConfirmedCauses> {
  try {
    const held: unknown = JSON.parse((await readFact('confirmedCauses')) ?? '{}');
    if (typeof held !== 'object' || held === null) return {};
    return Object.fromEntries(Object.entries(held).filter((one): one is [string, number] => typeof one[1] === 'number' && one[1] > 0));
  } catch {
    return {};
  }
}

/** Counts a cause that was found true, or takes it back. */
export async function confirmCause(id: string, by: 1 | -1): Promise<void> {
  const held = await confirmedCauses();
  await writeFact('confirmedCauses', JSON.stringify({ ...held, [id]: Math.max(0, (held[id] ?? 0) + by) }));
}
