import { yearOf } from '../advice';
import type { Probe, System, Train } from '../file';
import { ionicLoad } from '../exchange';
import { stageEnergy, trainYear, type TrainYear } from '../life';
import type { Stage, StageKind, TrainUse } from '../stage';
import { continued, keptBy, solveTrain, wornTrain, type SolvedTrain } from '../train';
import { strengthened, type Water } from '../water';
import type { Bench } from './bench';
import { agedStages, behindKey, celsiusOf, headOf, kept, once, type Age } from './heads';
import type { Look } from './option';
import { slopeBehind, type Laid } from './spaces';
import { takenByAll } from './taken';

/** Options as trains of the workbench, looked at quickly by the thousand, or solved whole where they are shown. */

/** A stage's id, told apart from those of the uses, which stay. */
const apart = (stages: readonly Stage[], { train }: System): Stage[] => {
  if (train.branches.length === 0) return [...stages];
  const taken = new Set(train.branches.flatMap((branch) => [branch.id, ...branch.stages.map(({ id }) => id)]));
  return stages.map((stage) => (taken.has(stage.id) ? { ...stage, id: `${stage.id}-main` } : stage));
};

/** The system's train with other stages in it: probes stay where such a stage is; what stood behind one that is gone reads the last before the tank. */
export function trainWith(system: System, own: readonly Stage[], wasteToProduct: number | null): Train {
  const stages = apart(own, system);
  return {
    ...system.train,
    stages,
    branches: system.train.branches.map((branch) => ({
      ...branch,
      after: stages.some(({ id }) => id === branch.after) ? branch.after : stages.at(-1)!.id,
    })),
    loop: stages.some(({ kind }) => kind === 'tank') ? system.train.loop : null,
    wasteTarget: wasteToProduct ?? system.train.wasteTarget,
    probes: probesOn(system, stages),
    gauge: stages.some(({ kind }) => kind === 'pump') ? 'membrane' : 'line',
  };
}

function probesOn({ train }: System, stages: readonly Stage[]): Probe[] {
  const kindAt = (id: string): StageKind | undefined => train.stages.find((stage) => stage.id === id)?.kind;
  const last = stages.findLast(({ kind }) => kind !== 'tank') ?? stages.at(-1)!;
  const inUses = new Set(train.branches.flatMap((branch) => branch.stages.map(({ id }) => id)));
  return train.probes.map((probe) => {
    if (probe.after === 'tap' || inUses.has(probe.after)) return probe;
    const kind = kindAt(probe.after);
    const same = stages.find(({ id }) => id === probe.after) ?? stages.findLast((stage) => stage.kind === kind) ?? last;
    return { ...probe, after: same.id };
  });
}

/**
 * What meets the first resin over the year, where something stands ahead of it that the head was not solved with: the year's
 * load in the proportion the mean day's goes down. Null where there is no resin.
 */
function loadBehind(load: TrainYear['load'], head: SolvedTrain, { resins }: SolvedTrain): TrainYear['load'] {
  const made = head.stations.at(-1)?.water;
  const fed = resins[0]?.feed;
  if (!load || !made || !fed || made === fed) return fed ? load : null;
  const [was, is] = [ionicLoad(made), ionicLoad(fed)];
  const now = (key: keyof typeof was): number => (was[key] > 0 ? (load[key] * is[key]) / was[key] : is[key]);
  return {
    cationMeqL: now('cationMeqL'),
    anionMeqL: now('anionMeqL'),
    strongMeqL: now('strongMeqL'),
    bicarbonateMeqL: now('bicarbonateMeqL'),
    weakAcidMeqL: now('weakAcidMeqL'),
  };
}

/** An option looked at quickly: its head solved once for all that share it, what stands behind put to it. */
export function quickLook(laid: Laid, bench: Bench, key: string): Look {
  const { system } = bench;
  const head = headOf(laid, bench, key);
  const wasteToProduct = laid.target?.wasteToProduct ?? null;
  const train = once(() => trainWith(system, [...(head.stages() ?? laid.head), ...laid.tail], wasteToProduct));
  const whole = (solved: SolvedTrain | null): SolvedTrain | null => {
    const found = solved && continued(train(), solved, train().stages.slice(laid.head.length));
    return found?.ok ? found.value : null;
  };
  const goesOn = keptBy(laid.tail);
  const year = once((): TrainYear | null => {
    const own = head.year();
    const mean = own && whole(own.mean);
    if (!mean) return null;
    // A litre that is made in the end takes more of all, where something behind sends a share to the drain.
    const energy = stageEnergy({ train: train() }, mean);
    return {
      ...own,
      mean,
      feedPerL: own.feedPerL / goesOn,
      hoursPerL: own.hoursPerL / goesOn,
      kWhPerM3: own.kWhPerM3 === null && energy === 0 ? null : (own.kWhPerM3 ?? 0) / goesOn + energy,
      throughPerL: [...own.throughPerL.map((litres) => litres / goesOn), ...laid.tail.map((_, i) => 1 / keptBy(laid.tail.slice(i)))],
      load: loadBehind(own.load, own.mean, mean),
    };
  });
  const rows = [laid.head, laid.tail];
  const alone = kept(head.alone, bench.booked, () => new Map<string, unknown>());
  const behind = kept(head.behind, behindKey(laid.tail), () => new Map<string, unknown>());
  return {
    rows,
    taken: takenByAll(rows),
    get system() {
      return { ...system, train: train() };
    },
    wasteToProduct,
    owned: false,
    unitOn: head.on,
    goesOn,
    on: (day, age) => whole(head.on(day, age)),
    // Its head was solved against a middling tail: what this one takes more or less moves the output in proportion.
    eased: ({ unit, stations }) => {
      if (!unit || !(unit.feedPressureBar > 0)) return 1;
      const t = stations[0]!.water.temperatureC;
      const more = (bench.behindBarPerLPerH.get(key.split(':')[0]!)?.(t) ?? 0) - slopeBehind(laid.tail, t);
      return 1 + (more * unit.permeateLPerH) / unit.feedPressureBar;
    },
    year,
    ofUnit: (what, of) => kept(alone, what, of),
    // A tank changes neither what the goal is held against by its meter nor what wears: what differs in it alone is worked out once.
    shared: (what, of) => kept(behind, what, of),
    sure: once(() => fullLook(bench, train(), wasteToProduct)),
  };
}

/** A train solved whole, by the same solver as the workbench's; as it is shown. */
export function fullLook(bench: Bench, train: Train, wasteToProduct: number | null): Look {
  const { source } = bench.system;
  const system = { ...bench.system, train };
  const celsius = celsiusOf(bench);
  const solve = (age: Age, water: Water, near?: SolvedTrain): ReturnType<typeof solveTrain> =>
    solveTrain({ ...train, stages: agedStages(train.stages, age) }, source, water, {}, near);
  const days = new Map<string, SolvedTrain | null>();
  const meanFeed = strengthened(bench.feed, bench.seasons.strength.mean);
  const on: Look['on'] = (day, age) => {
    const key = `${day} ${age}`;
    const hit = days.get(key);
    if (hit !== undefined) return hit;
    const solved = solve(age, { ...meanFeed, temperatureC: celsius[day] });
    const found = solved.ok && solved.value.productLPerH > 0 ? solved.value : null;
    days.set(key, found);
    return found;
  };
  return {
    rows: [train.stages],
    taken: takenByAll([train.stages]),
    system,
    wasteToProduct,
    owned: false,
    unitOn: on,
    on,
    goesOn: 1,
    eased: () => 1,
    ofUnit: (_, of) => of(),
    shared: (_, of) => of(),
    sure: null,
    year: once(() => {
      let near: SolvedTrain | undefined;
      const found = trainYear(
        { train },
        (water) => {
          const solved = solve('mid', water, near);
          if (solved.ok) near = solved.value;
          return solved;
        },
        bench.feed,
        bench.seasons,
      );
      return found.ok ? found.value : null;
    }),
  };
}

/**
 * The train as it stands: a year of it as its use has left it, the same as every other page has; its worst days with a
 * membrane at the end of its years, or as worn as it is where that is more.
 *
 * @param use what the log says each stage has been through
 */
export function todayLook(bench: Bench, use: TrainUse): Look {
  const { system } = bench;
  const worn = wornTrain(system.train, system.source.turbidityNTU, use);
  const full = fullLook(bench, worn, null);
  const celsius = celsiusOf(bench);
  const meanFeed = strengthened(bench.feed, bench.seasons.strength.mean);
  const oldest: Train = {
    ...worn,
    stages: agedStages(worn.stages, 'old').map((stage, i) => {
      const now = worn.stages[i]!;
      if (stage.kind !== 'membrane' || now.kind !== 'membrane') return stage;
      return {
        ...stage,
        waterFactor: Math.min(stage.waterFactor!, now.waterFactor ?? 1),
        saltFactor: Math.max(stage.saltFactor!, now.saltFactor ?? 1),
      };
    }),
  };
  const on: Look['on'] = (day, age) => {
    if (age !== 'old') return full.on(day, age);
    const solved = solveTrain(oldest, system.source, { ...meanFeed, temperatureC: celsius[day] });
    return solved.ok && solved.value.productLPerH > 0 ? solved.value : null;
  };
  return {
    ...full,
    use,
    owned: true,
    unitOn: on,
    on,
    year: once(() => {
      const found = yearOf({ ...system, train: worn }, bench.feed, use);
      return found.ok ? found.value : null;
    }),
  };
}
