import type { System } from './schema';
import { currentSample } from './select';
import { union } from './union';

/**
 * A system as it travels in an address: its design, water, goal and prices; not what was done, read or thrown away,
 * which belongs to the place it was done at.
 */
export function linked(system: System): System {
  const sample = currentSample(system.source);
  const { report } = sample;
  return {
    ...system,
    demo: false,
    comparison: { referenceId: null, glasses: [] },
    cartridges: [],
    services: [],
    sensors: [],
    away: [],
    removed: [],
    source: { ...system.source, samples: [{ ...sample, report: { ...report, text: '' } }] },
    build: { ...system.build, works: [], ratios: [], ports: [] },
  };
}

/** A system here with the design a link carries: what a link leaves behind, the log's marks and the work done, stays as it is here. */
export function withLinked(here: System, there: System): System {
  const { works, ratios, ports } = here.build;
  return {
    ...there,
    id: here.id,
    demo: here.demo,
    createdAt: here.createdAt,
    instruments: union(there.instruments, here.instruments),
    comparison: here.comparison,
    cartridges: here.cartridges,
    services: here.services,
    sensors: here.sensors,
    away: here.away,
    orderDays: here.orderDays ?? there.orderDays,
    removed: here.removed,
    source: { ...there.source, samples: union(there.source.samples, here.source.samples) },
    build: { ...there.build, works, ratios, ports },
  };
}
