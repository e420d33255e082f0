import { serviced, trackResin, type ResinTracking } from '../log';
import { NOTHING_SAID, type Reading, type Service, type System } from '../file';
import { seeded, type Seeded } from '../numeric';
import type { Stage } from '../stage';
import { systemFromTemplate } from '../template';
import { solveTrain, tapWater, type SolvedTrain } from '../train';
import { value } from './close';

/**
 * Resin as people keep it: one bed, a row of two or of three, a counter that runs down; changes late, early or never written
 * down, days that are a little off, answers that are wrong as often as the chapter says (science of logs, 5.3). What each bed
 * truly takes up is known here, and held against what the log tells.
 */

export const KEPT = ['one bed', 'counter that runs down', 'row of two', 'row of three'] as const;
export type Kept = (typeof KEPT)[number];

/** What is told of some keepers' resin. */
export interface KeptTally {
  readonly forecasts: number;
  /** Shares left within their band, and dates within theirs. */
  readonly leftInside: number;
  readonly datesOf: number;
  readonly datesInside: number;
  /** Median of what the middle of the date was too late by, days; and median width of the band against the time left. */
  readonly lateDays: number;
  readonly width: number;
}

/** How the truth strays from what the class promises (5.1, 5.3). */
const SD = { site: 0.2, bed: 0.1, load: 0.05, day: 0.3 } as const;
const SEASON = 0.1;
const EARLY = 0.2;
const FORGOTTEN = 0.08;
/** Chance of the answer “spent”, “early” or “was due”, of a bed that was spent and of one that was not; the rest says nothing. */
const ANSWERS: Readonly<Record<'spent' | 'clean', readonly (readonly [Service['why'], number])[]>> = {
  spent: [['spent', 0.6], ['due', 0.2], ['early', 0.03]], // prettier-ignore
  clean: [['spent', 0.1], ['due', 0.3], ['early', 0.4]], // prettier-ignore
};
const SET_L = 3000;

interface Base {
  readonly system: System;
  readonly solved: SolvedTrain;
  readonly row: readonly string[];
  /** Load of one bed at the goal by its class, and what a litre brings, eq. */
  readonly bedEq: number;
  readonly eqPerL: number;
}

const FROM = '2025-02-03T08:00:00Z';
const bases = new Map<Kept, Base>();

function baseOf(kept: Kept): Base {
  const known = bases.get(kept);
  if (known) return known;
  const template: System['template'] = kept === 'one bed' || kept === 'counter that runs down' ? 'marineHousehold' : 'marinePair';
  const plain = systemFromTemplate({ id: 's', name: 'Try', site: 'Bench', template, at: FROM });
  const last = plain.train.stages.findLastIndex((stage) => stage.kind === 'resin');
  const bed = plain.train.stages[last]!;
  const third: Stage = { ...bed, id: 'resin-third', name: 'Third resin' };
  const stages = kept === 'row of three' ? plain.train.stages.toSpliced(last + 1, 0, third) : plain.train.stages;
  const probes = plain.train.probes.map((probe) =>
    probe.after === bed.id && stages.includes(third) ? { ...probe, after: third.id } : probe,
  );
  const system: System = {
    ...plain,
    train: {
      ...plain.train,
      probes,
      stages: stages.map((stage) => ('fittedOn' in stage ? { ...stage, fittedOn: FROM.slice(0, 10) } : stage)),
      ...(kept === 'counter that runs down' ? { meter: { ...plain.train.meter, counts: 'down', setToL: SET_L } } : {}),
    },
  };
  const solved = value(solveTrain(system.train, system.source, value(tapWater(system.source, system.instruments)).water));
  const week = (day: number): Reading => readingAt(system, `r${day}`, day, 20 * day, 0, null);
  const tracking = trackResin(system, [week(0), week(7)], solved, at(7))!;
  const row = system.train.stages.flatMap(({ kind, id }) => (kind === 'resin' ? [id] : []));
  const base = { system, solved, row, bedEq: tracking.capacityEq / row.length, eqPerL: loadOf(tracking) / tracking.litres };
  bases.set(kept, base);
  return base;
}
const loadOf = ({ limiting, anionEq, cationEq }: ResinTracking): number => (limiting === 'anion' ? anionEq : cationEq);
const at = (day: number): string => new Date(Date.parse(FROM) + Math.round(day * 1440) * 60_000).toISOString();

function readingAt(system: System, id: string, day: number, meterL: number, product: number, chance: Seeded | null): Reading {
  const shown = [310, 6, product].map((figure) => Math.round(figure * Math.exp(0.02 * (chance?.normal() ?? 0))));
  return {
    id,
    systemId: system.id,
    at: at(day),
    values: system.train.probes.map(({ id: probeId, instrumentId }, i) => ({ probeId, instrumentId, shown: shown[Math.min(i, 2)]! })),
    pressureBar: 4,
    temperatureC: 15,
    productLPerH: null,
    wasteLPerH: null,
    meterL: Math.round(meterL),
    ...NOTHING_SAID,
  };
}

/** A keeper's log up to a day, with what is true of the row then. */
interface KeptLife {
  readonly system: System;
  readonly readings: readonly Reading[];
  readonly now: string;
  /** Share truly left of what the row took up when it was last touched, and days until it truly passes the goal. */
  readonly left: number;
  readonly days: number;
}

/** Lives a row through day by day, and its keeper with it. */
function keptLife(base: Base, kept: Kept, seed: number): KeptLife {
  const chance = seeded(seed);
  const off = (sd: number): number => Math.exp(sd * chance.normal());
  const siteEq = base.bedEq * off(SD.site);
  const newBed = (): { holdsEq: number; takenEq: number } => ({ holdsEq: siteEq * off(SD.bed), takenEq: 0 });
  const perLitre = base.eqPerL * off(SD.load);
  const scaleL = (base.bedEq / base.eqPerL / chance.between(50, 120)) * base.row.length;
  const weekdays = [1, 1, 1, 1, 1, chance.between(1, 3), chance.between(0, 2)];
  const middle = weekdays.reduce((sum, one) => sum + one, 0) / 7;
  const usedOn = (day: number): number => ((scaleL * weekdays[day % 7]!) / middle) * off(SD.day);
  const eqOn = (day: number, litres: number): number => litres * perLitre * (1 + SEASON * Math.sin((2 * Math.PI * day) / 365));

  let system: System = { ...base.system, goal: { ...base.system.goal, productLPerDay: scaleL } as System['goal'] };
  let beds = base.row.map(newBed);
  let [freeEq, takenEq, litres, setAtL] = [beds.reduce((sum, { holdsEq }) => sum + holdsEq, 0), 0, 0, 0];
  const readings: Reading[] = [];
  let [nextReading, changeOn, seenPast, changes] = [0, Infinity, false, 0];
  const stopAfter = 1 + Math.floor(chance.next() * 4);
  const earlyAt = (): number => (chance.next() < EARLY ? chance.between(0.6, 0.95) : Infinity);
  let early = earlyAt();
  let lookOn = Infinity;
  for (let day = 0; day < 3000; day++) {
    const isPast = takenEq >= freeEq;
    if (day >= nextReading) {
      const product = isPast ? chance.between(3, 8) : 0;
      const shown = kept === 'counter that runs down' ? SET_L - (litres - setAtL) : litres;
      readings.push(readingAt(system, `r${day}`, day, shown, product, chance));
      nextReading = day + Math.round(chance.between(4, 10));
      if (isPast && !seenPast) [seenPast, changeOn] = [true, day + Math.floor(chance.between(0, 22))];
    }
    if (takenEq > early * freeEq && changeOn === Infinity) changeOn = day;
    if (day >= changeOn) {
      const written = chance.next() > FORGOTTEN;
      if (written) system = writtenDown(system, base, day, changes, seenPast, chance);
      // The lead leaves with what it holds, the others move up, a new one comes last; of one bed that is the bed.
      let rest = takenEq;
      beds = beds.map((bed) => {
        const takes = Math.min(rest, bed.holdsEq - bed.takenEq);
        rest -= takes;
        return { ...bed, takenEq: bed.takenEq + takes };
      });
      beds = [...beds.slice(1), newBed()];
      freeEq = beds.reduce((sum, bed) => sum + bed.holdsEq - bed.takenEq, 0);
      [takenEq, changeOn, seenPast, setAtL, early] = [0, Infinity, false, litres, earlyAt()];
      changes += 1;
      if (changes === stopAfter) lookOn = day + Math.max(8, Math.round(chance.between(0.1, 1.05) * (freeEq / (scaleL * perLitre))));
    }
    if (day >= lookOn && readings.length > 3) {
      let [left, until] = [freeEq - takenEq, day];
      while (left > 0 && until < day + 2000) {
        left -= eqOn(until, usedOn(until));
        until += 1;
      }
      return { system, readings, now: at(day + 0.1), left: Math.max(0, 1 - takenEq / freeEq), days: until - day };
    }
    const used = usedOn(day);
    litres += used;
    takenEq += eqOn(day, used);
  }
  throw new Error(`The keeper of seed ${seed} never came to a look.`);
}

/** The change as it is written down: its day may be one off, its answer wrong. */
function writtenDown(system: System, { row }: Base, day: number, n: number, wasSpent: boolean, chance: Seeded): System {
  const dated = chance.next() < 0.3 ? day + chance.one([-1, 1]) : day;
  let draw = chance.next();
  let why: Service['why'] = 'notSaid';
  for (const [answer, share] of ANSWERS[wasSpent ? 'spent' : 'clean']) {
    if (draw < share) {
      why = answer;
      break;
    }
    draw -= share;
  }
  const work = row.length > 1 ? ('movedUp' as const) : ('changed' as const);
  return serviced(system, { id: `w${n}`, at: at(Math.max(0, dated)), stageId: row[0]!, instrumentId: null, work, why, note: '' }, {});
}

/** What the log makes of some seeds' keepers. */
export function keptTally(kept: Kept, seeds: readonly number[]): KeptTally {
  const base = baseOf(kept);
  const late: number[] = [];
  const widths: number[] = [];
  const all = { forecasts: 0, leftInside: 0, datesOf: 0, datesInside: 0 };
  for (const seed of seeds) {
    const life = keptLife(base, kept, seed);
    const tracking = trackResin(life.system, life.readings, base.solved, life.now);
    if (!tracking) continue;
    const { remaining, daysLeft } = tracking;
    all.forecasts += 1;
    if (life.left >= remaining.p10 - 1e-9 && life.left <= remaining.p90) all.leftInside += 1;
    if (!daysLeft || life.days === 0) continue;
    all.datesOf += 1;
    if (life.days >= daysLeft.p10 - 1 && life.days <= daysLeft.p90 + 1) all.datesInside += 1;
    late.push(daysLeft.p50 - life.days);
    widths.push((daysLeft.p90 - daysLeft.p10) / Math.max(5, life.days));
  }
  return { ...all, lateDays: middleOf(late), width: middleOf(widths) };
}
const middleOf = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;
