import { DAY_MS } from '@yes-clear/core/quantity';
import type { Stage } from '@yes-clear/core/stage';
import { mapStages, type SystemRecord } from '@yes-clear/core/file';

/**
 * A record moved in time by whole days, so that data saved at `savedAt` look as if saved today.
 * The hour of the day stays what it was.
 */
export function shiftedRecord(record: SystemRecord, savedAt: string, now: Date): SystemRecord {
  const days = Math.floor((now.getTime() - Date.parse(savedAt)) / DAY_MS);
  const instant = (text: string): string => new Date(Date.parse(text) + days * DAY_MS).toISOString();
  const day = (text: string): string => instant(`${text}T00:00:00Z`).slice(0, 10);
  const dated = <T extends { readonly at: string }>(one: T): T => ({ ...one, at: instant(one.at) });
  const fitted = (stage: Stage): Stage =>
    'fittedOn' in stage && stage.fittedOn !== null ? { ...stage, fittedOn: day(stage.fittedOn) } : stage;
  const { system, readings } = record;
  return {
    system: {
      ...system,
      createdAt: instant(system.createdAt),
      updatedAt: instant(system.updatedAt),
      source: {
        ...system.source,
        samples: system.source.samples.map((sample) => ({ ...sample, takenOn: day(sample.takenOn) })),
        second: system.source.second && {
          ...system.source.second,
          sample: { ...system.source.second.sample, takenOn: day(system.source.second.sample.takenOn) },
        },
      },
      instruments: system.instruments.map((instrument) => ({
        ...instrument,
        calibratedOn: instrument.calibratedOn === null ? null : day(instrument.calibratedOn),
      })),
      train: mapStages(system.train, fitted),
      cartridges: system.cartridges.map((old) => ({
        ...old,
        fittedOn: old.fittedOn === null ? null : day(old.fittedOn),
        removedOn: day(old.removedOn),
      })),
      services: system.services.map((service) => ({
        ...dated(service),
        fittedOn: service.fittedOn === null ? null : day(service.fittedOn),
      })),
      build: {
        ...system.build,
        ratios: system.build.ratios.map(dated),
        works: system.build.works.map((work) => ({
          ...work,
          startedAt: instant(work.startedAt),
          endedAt: work.endedAt === null ? null : instant(work.endedAt),
          done: work.done.map(dated),
          measured: work.measured.map(dated),
          deviations: work.deviations.map(dated),
        })),
        commissioned: system.build.commissioned && dated(system.build.commissioned),
      },
    },
    readings: readings.map((reading) => ({ ...reading, at: instant(reading.at) })),
  };
}
