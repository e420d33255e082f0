import type { Cartridge, System } from '../file';
import type { StageOf } from '../stage';
import type { ResinTracking } from './resin';

/** What is done at a change of resin. */
export interface CartridgeChange {
  /** New resin in the same place; or the next one moves up and new resin stands behind it. */
  readonly how: 'renew' | 'moveUp';
  readonly ended: Cartridge['ended'];
  /** Calendar day, and an id for what is written down. */
  readonly day: string;
  readonly id: string;
}

const FRESH = { cation: 0, anion: 0 } as const;

/** The resin stage behind the first, which can move up; null where there is none. */
export function lagStage(system: System): StageOf<'resin'> | null {
  const resins = system.train.stages.filter((stage): stage is StageOf<'resin'> => stage.kind === 'resin');
  return resins[1] ?? null;
}

/**
 * A system after its first resin was changed: the old one is written down with what it had taken up, and what stands in
 * its place starts to count anew. A second one that moves up brings what it has; a lag behind a lead that held has taken
 * up next to nothing.
 */
export function cartridgeChanged(system: System, tracking: ResinTracking, change: CartridgeChange): System {
  const lead = system.train.stages.find((stage): stage is StageOf<'resin'> => stage.kind === 'resin' && stage.id === tracking.stageId);
  if (!lead) return system;
  const lag = lagStage(system);
  const old: Cartridge = {
    id: change.id,
    name: lead.name,
    resinClass: lead.resinClass,
    volumeL: lead.volumeL,
    fittedOn: lead.fittedOn,
    removedOn: change.day,
    ended: change.ended,
    side: tracking.limiting,
    loadEq: tracking.limiting === 'anion' ? tracking.anionEq : tracking.cationEq,
    intervals: tracking.points.length,
  };
  const moved = change.how === 'moveUp' && lag !== null;
  return {
    ...system,
    cartridges: [...system.cartridges, old],
    train: {
      ...system.train,
      stages: system.train.stages.map((stage) => {
        if (stage.id === lead.id) {
          const resin = moved ? { resinClass: lag.resinClass, volumeL: lag.volumeL, depthMm: lag.depthMm, packing: lag.packing } : {};
          return { ...lead, ...resin, carriedEq: moved ? lag.carriedEq : FRESH, fittedOn: change.day };
        }
        return moved && stage.id === lag.id ? { ...lag, carriedEq: FRESH, fittedOn: change.day } : stage;
      }),
    },
  };
}
