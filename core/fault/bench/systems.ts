import { PLACEHOLDER_PRICES, type System, type TemplateId } from '../../file';
import { strengthLimit } from '../../goal';
import { ok, PPM_PER_USCM, type Outcome } from '../../quantity';
import { systemFromTemplate } from '../../template';
import { hypothesesOf } from '../catalogue/fault';
import { nodeSteps, type NodeTable } from '../nodes';
import { groundAsPlanned, type SearchGround } from '../onSystem';
import { WITH_BASELINE, WITHOUT_BASELINE } from '../shared';

/** The rigs of the practice bench: each a template of the product, as planned. */

/** What can be turned. One that a rig does not have stays as it stands at the start: in its first position. */
export const VALVES = {
  feed: { label: 'Feed', positions: ['open', 'shut'], minutes: 0.25 },
  pump: { label: 'Pump', positions: ['on', 'off'], minutes: 0.1 },
  release: { label: 'Flush valve', positions: ['shut', 'open'], minutes: 0.25 },
  line: { label: 'Product line', positions: ['on', 'off'], minutes: 0.5 },
  outlet: { label: 'Product goes', positions: ['to drain', 'to tank'], minutes: 0.25 },
  pressure: { label: 'Pressure', positions: ['working', 'low', 'none'], minutes: 1.5 },
} as const;
export type ValveId = keyof typeof VALVES;
export type Valves = { readonly [V in ValveId]: (typeof VALVES)[V]['positions'][number] };
export const AT_START: Valves = { feed: 'open', pump: 'on', release: 'shut', line: 'on', outlet: 'to drain', pressure: 'working' };

interface BenchSystem {
  readonly name: string;
  readonly template: TemplateId;
  readonly valves: readonly ValveId[];
  readonly isVented?: true;
  /** What is called otherwise on this rig. */
  readonly labels?: Partial<Readonly<Record<ValveId, string>>>;
}
export const BENCH_SYSTEMS = {
  household: { name: 'Household unit', template: 'marineHousehold', valves: ['feed', 'release', 'line', 'outlet'] },
  pair: { name: 'Two membranes', template: 'marinePair', valves: ['feed', 'release', 'line', 'outlet'] },
  cart: {
    name: 'Cart with a pump',
    template: 'vanCart',
    valves: ['feed', 'pump', 'release', 'line', 'outlet', 'pressure'],
    isVented: true,
  },
  espresso: { name: 'Espresso cartridge', template: 'espressoBar', valves: ['feed', 'release', 'outlet'], isVented: true },
  skid: {
    name: 'Laboratory skid',
    template: 'skid',
    valves: ['feed', 'pump', 'release', 'outlet', 'pressure'],
    isVented: true,
  },
  watermaker: {
    name: 'Watermaker',
    template: 'watermaker',
    valves: ['feed', 'pump', 'release', 'outlet', 'pressure'],
    isVented: true,
    labels: { feed: 'Sea cock' },
  },
} as const satisfies Record<string, BenchSystem>;
export type BenchSystemId = keyof typeof BENCH_SYSTEMS;
export const BENCH_SYSTEM_IDS = Object.keys(BENCH_SYSTEMS) as readonly BenchSystemId[];

/** Whether pressure is let out by a vent of its own; by the flush valve in the waste line otherwise. */
export const isVented = (system: BenchSystemId): boolean => (BENCH_SYSTEMS[system] as BenchSystem).isVented === true;
/** A valve as it is called on a rig. */
export const valveLabel = (system: BenchSystemId, valve: ValveId): string =>
  valve === 'release' && isVented(system) ? 'Vent' : ((BENCH_SYSTEMS[system] as BenchSystem).labels?.[valve] ?? VALVES[valve].label);
export const hasValve = (system: BenchSystemId, valve: ValveId): boolean =>
  (BENCH_SYSTEMS[system].valves as readonly ValveId[]).includes(valve);

/** A rig of the bench: the system, how it is searched, and what every cause would show. */
export interface Bench {
  readonly id: BenchSystemId;
  readonly system: System;
  readonly ground: SearchGround;
  readonly table: NodeTable;
}

/** A day like the others: nothing of the bench depends on the calendar. */
const DAY = '2026-04-15T12:00:00Z';

export const benchSystem = (id: BenchSystemId): System => ({
  ...systemFromTemplate({
    id: `bench-${id}`,
    name: BENCH_SYSTEMS[id].name,
    site: 'Practice bench',
    template: BENCH_SYSTEMS[id].template,
    at: DAY,
  }),
  prices: PLACEHOLDER_PRICES,
});

/** How a rig is searched, with or without a sheet from its hand-over. */
export function benchGround(id: BenchSystemId, baseline: boolean): Outcome<{ readonly system: System; readonly ground: SearchGround }> {
  const system = benchSystem(id);
  const ground = groundAsPlanned(system, { before: [], course: [], now: DAY });
  if (!ground.ok) return ground;
  return ok({ system, ground: { ...ground.value, shared: baseline ? WITH_BASELINE : WITHOUT_BASELINE, hasBaseline: baseline } });
}

/** Lays a rig down with what every cause would show of it, in steps that yield the share done. */
export function* benchSteps(id: BenchSystemId, baseline: boolean): Generator<number, Outcome<Bench>> {
  const made = benchGround(id, baseline);
  if (!made.ok) return made;
  const { rig, faults, shared } = made.value.ground;
  const table = yield* nodeSteps(rig, hypothesesOf(faults, rig), shared);
  return table.ok ? ok({ id, ...made.value, table: table.value }) : table;
}

/** Strength of product a rig's goal still allows, ppm; null where the goal says nothing of it. */
export function goalPpm({ goal, units }: System): number | null {
  const high = strengthLimit(goal, units.ppmFactor)?.highUScm ?? null;
  return high === null ? null : high * PPM_PER_USCM;
}
