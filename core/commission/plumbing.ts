import type { Build, System } from '../file';
import { kindOf, unitRanks, type Stage, type StageOf } from '../stage';
import type { SolvedTrain } from '../train';

/** A place water enters or leaves a piece; of a membrane, which of its vessels. */
export type PortName = 'in' | 'out' | 'feed' | 'product' | 'waste' | 'drain';
export interface PortEnd {
  /** The stage, or 'tap', 'drain' and 'use' at the ends of the house. */
  readonly at: string;
  readonly port: PortName;
  readonly vessel?: { readonly rank: number; readonly index: number };
}

export type Carries = 'feed' | 'product' | 'waste';

/** Tubing that joins two ports or more; each more than two takes a tee. */
export interface TubeLine {
  /** By its ends, so that a length that was typed stays with its line. */
  readonly id: string;
  /** As it is marked on the drawing and the labels. */
  readonly letter: string;
  readonly carries: Carries;
  readonly ends: readonly PortEnd[];
  readonly tees: number;
  readonly lengthMm: number;
  /** Whether somebody measured it on this site; else it is a usual length. */
  readonly measured: boolean;
  readonly size: TubeSize;
  /** A valve, restrictor or the like that sits in it. */
  readonly holds: string | null;
}

/** Tubing as it is sold (common practice): what it is called, its bore, and the fittings it takes. */
export interface TubeSize {
  readonly key: string;
  readonly name: string;
  readonly boreMm: number;
}
export const TUBE_SIZES: readonly TubeSize[] = [
  { key: 'quarter', name: '1/4 in', boreMm: 4.3 },
  { key: 'three-eighths', name: '3/8 in', boreMm: 6.4 },
  { key: 'half', name: '1/2 in', boreMm: 9.5 },
  { key: 'dn15', name: 'DN 15', boreMm: 15 },
  { key: 'dn20', name: 'DN 20', boreMm: 20 },
  { key: 'dn25', name: 'DN 25', boreMm: 25 },
  { key: 'dn32', name: 'DN 32', boreMm: 32 },
  { key: 'dn40', name: 'DN 40', boreMm: 40 },
];
/** Water faster than this takes pressure and hammers (common practice), m/s. */
const FASTEST_M_PER_S = 1.5;

/** The smallest tubing in which a flow stays slow enough. */
export function tubeFor(flowLPerH: number): TubeSize {
  const needed = 1000 * Math.sqrt((4 * flowLPerH) / 3.6e6 / Math.PI / FASTEST_M_PER_S);
  return TUBE_SIZES.find(({ boreMm }) => boreMm >= needed) ?? TUBE_SIZES.at(-1)!;
}

/** Lengths to begin with until somebody measures (our placeholders), mm. */
const USUAL_MM = {
  tap: 1500,
  neighbours: 150,
  toMembrane: 420,
  ranks: 180,
  drain: 1200,
  tank: 1500,
  use: 1000,
  recycle: 800,
  branch: 1000,
};

const LETTERS = 'ABCDEGHIJKLMNOPQSTUVXYZ';

const end = (at: string, port: PortName, vessel?: PortEnd['vessel']): PortEnd => (vessel ? { at, port, vessel } : { at, port });
const idOf = (ends: readonly PortEnd[]): string =>
  ends
    .slice(0, 3)
    .map(({ at, port, vessel }) => `${at}.${port}${vessel ? `.${vessel.rank}.${vessel.index}` : ''}`)
    .join('+')
    .slice(0, 80);

/** Ports on the way in and out of a stage, as the main line meets them. */
function sides(stage: Stage): { readonly in: readonly PortEnd[]; readonly out: readonly PortEnd[] } {
  if (stage.kind !== 'membrane') return { in: [end(stage.id, 'in')], out: [end(stage.id, 'out')] };
  const ranks = unitRanks(stage);
  const vessels = (rank: number): readonly { rank: number; index: number }[] =>
    Array.from({ length: ranks[rank]!.vessels }, (_, index) => ({ rank, index }));
  return {
    in: vessels(0).map((vessel) => end(stage.id, 'feed', vessel)),
    out: ranks.flatMap((_, rank) => vessels(rank).map((vessel) => end(stage.id, 'product', vessel))),
  };
}

/** The stages that are pieces, not tubing alone. */
export const piecesOf = (stages: readonly Stage[]): Stage[] => stages.filter((stage) => kindOf(stage).plumbed(stage).tubeMm === null);

interface Draft {
  readonly ends: readonly PortEnd[];
  readonly carries: Carries;
  readonly usualMm: number;
  readonly flowLPerH: number;
  readonly letter?: string;
  readonly holds?: string;
}

/**
 * Every line of tubing of a train, from tap to drain and to each use: which ports it joins, what it carries, how long
 * and how wide it is. Fittings are counted from its ends, labels and the drawing are made of it.
 *
 * @param solved for the flows that set the bore; a household's where it cannot be solved
 */
export function tubeLines(system: Pick<System, 'train' | 'build'>, solved: SolvedTrain | null): TubeLine[] {
  const { train, build } = system;
  const stages = piecesOf(train.stages);
  const flowAt = (id: string): number => solved?.stations.find(({ after }) => after === id)?.flowLPerH ?? 0;
  const membranes = stages.filter((stage): stage is StageOf<'membrane'> => stage.kind === 'membrane');
  const first = membranes[0] ?? stages.find((stage) => ['minerals', 'salt'].includes(kindOf(stage).touches(stage)));
  const past = membranes.filter(({ bypassShare }) => bypassShare > 0);
  const drafts: Draft[] = [];
  stages.forEach((stage, i) => {
    const before = stages[i - 1];
    const from = before ? sides(before).out : [end('tap', 'out')];
    const taken = [
      ...(before ? takenBehind(train, before) : takenBehind(train, null)),
      ...past.flatMap((one) => blendEnds(one, before, stage, stages)),
    ];
    const into = stage.kind === 'membrane' ? USUAL_MM.toMembrane : stage.kind === 'tank' ? USUAL_MM.tank : USUAL_MM.neighbours;
    drafts.push({
      ends: [...from, ...sides(stage).in, ...taken],
      carries: first && stages.indexOf(first) < i ? 'product' : 'feed',
      usualMm: before ? (tubed(train.stages, before, stage) ?? into) : USUAL_MM.tap,
      flowLPerH: flowAt(before?.id ?? 'tap'),
      ...(i === 0 && { letter: 'F' }),
    });
    if (stage.kind === 'membrane') drafts.push(...wasteOf(stage, stages, solved));
    if (stage.kind !== 'membrane' && kindOf(stage).plumbed(stage).drains)
      drafts.push({ ends: [end(stage.id, 'drain'), end('drain', 'in')], carries: 'waste', usualMm: USUAL_MM.drain, flowLPerH: 0 });
  });
  const last = stages.at(-1);
  if (last)
    drafts.push({
      ends: [...sides(last).out, ...(train.loop ? loopEnds(stages) : [end('use', 'in')]), ...takenBehind(train, last)],
      carries: first ? 'product' : 'feed',
      usualMm: USUAL_MM.use,
      flowLPerH: train.loop?.flowLPerH ?? flowAt(last.id),
    });
  drafts.push(...branchLines(system));
  return lettered(drafts, build);
}

/** Where water is taken off for a use, as one more end of the line behind a stage. */
const takenBehind = ({ branches }: System['train'], stage: Stage | null): PortEnd[] =>
  branches
    .filter(({ after }) => after === (stage?.id ?? 'tap'))
    .map((branch) => (branch.stages[0] ? end(branch.stages[0].id, 'in') : end(`use-${branch.id}`, 'in')));

/** Water led past a membrane leaves the line it is taken from and joins the product. */
function blendEnds(membrane: StageOf<'membrane'>, before: Stage | undefined, stage: Stage, stages: readonly Stage[]): PortEnd[] {
  const from = membrane.bypassAfter ?? stages[stages.indexOf(membrane) - 1]?.id ?? 'tap';
  const joins = stages[stages.indexOf(membrane) + 1];
  return [
    ...((before?.id ?? 'tap') === from ? [end(`blend-${membrane.id}`, 'in')] : []),
    ...(joins === stage ? [end(`blend-${membrane.id}`, 'out')] : []),
  ];
}

/** Length a stage of tubing between two neighbours was given, mm. */
function tubed(all: readonly Stage[], before: Stage, stage: Stage): number | null {
  const between = all.slice(all.indexOf(before) + 1, all.indexOf(stage));
  const mm = between.reduce((sum, one) => sum + (kindOf(one).plumbed(one).tubeMm ?? 0), 0);
  return mm > 0 ? mm : null;
}

/** The waste of a membrane: from rank to rank, through what holds it back, to the drain; what is led back, before the pump. */
function wasteOf(stage: StageOf<'membrane'>, stages: readonly Stage[], solved: SolvedTrain | null): Draft[] {
  const ranks = unitRanks(stage);
  const unit = solved?.unitStageId === stage.id ? solved.unit : null;
  const ends = (rank: number, port: PortName): PortEnd[] =>
    Array.from({ length: ranks[rank]!.vessels }, (_, index) => end(stage.id, port, { rank, index }));
  const between = ranks.slice(1).map((_, i): Draft => ({
    ends: [...ends(i, 'waste'), ...ends(i + 1, 'feed')],
    carries: 'waste',
    usualMm: USUAL_MM.ranks,
    flowLPerH: unit?.membraneFeedLPerH ?? 0,
  }));
  const recycled = stage.recycleLPerH > 0 || stage.recycleKv !== null;
  const pump = stages.slice(0, stages.indexOf(stage)).findLast(({ kind }) => kind === 'pump');
  const before = stages.slice(0, stages.indexOf(stage)).find(({ kind }) => kind === 'membrane');
  const toFirst = stage.wasteToFirstPass && before;
  const target = toFirst ? end(before.id, 'in') : end('drain', 'in');
  const last: Draft = {
    ends: [...ends(ranks.length - 1, 'waste'), target, ...(recycled ? [end(pump?.id ?? stage.id, 'in')] : [])],
    carries: 'waste',
    usualMm: USUAL_MM.drain + (recycled ? USUAL_MM.recycle : 0),
    flowLPerH: unit ? unit.concentrateLPerH + unit.recycleLPerH : 0,
    letter: 'W',
    holds: stage.valve ? (stage.valve.kind === 'pressure' ? 'pressure valve' : 'needle valve') : 'restrictor and flush valve',
  };
  return [...between, last];
}

/** What goes round comes back to the last tank. */
const loopEnds = (stages: readonly Stage[]): PortEnd[] => {
  const tank = stages.findLast(({ kind }) => kind === 'tank');
  return [end('use', 'in'), ...(tank ? [end(tank.id, 'in')] : [])];
};

/** Lines between the stages of a use, and to where it is drawn; how it leaves the main line is an end of that line. */
const branchLines = ({ train: { branches } }: Pick<System, 'train'>): Draft[] =>
  branches.flatMap((branch) =>
    branch.stages.map((stage, i): Draft => ({
      ends: [...sides(stage).out, branch.stages[i + 1] ? end(branch.stages[i + 1]!.id, 'in') : end(`use-${branch.id}`, 'in')],
      carries: 'product',
      usualMm: branch.stages[i + 1] ? USUAL_MM.neighbours : USUAL_MM.branch,
      flowLPerH: branch.drawLPerH,
    })),
  );

function lettered(drafts: readonly Draft[], build: Pick<Build, 'lines'>): TubeLine[] {
  let next = 0;
  const used = new Set(drafts.flatMap(({ letter }) => letter ?? []));
  let wastes = 0;
  return drafts.map(({ ends, carries, usualMm, flowLPerH, letter, holds }): TubeLine => {
    const id = idOf(ends);
    const own = build.lines.find((line) => line.id === id);
    const named = letter === 'W' && ++wastes > 1 ? `W${wastes}` : letter;
    const plain = (): string => {
      while (used.has(LETTERS[next]!)) next += 1;
      const at = next++;
      return at < LETTERS.length ? LETTERS[at]! : `${LETTERS[at % LETTERS.length]!}${Math.floor(at / LETTERS.length) + 1}`;
    };
    return {
      id,
      letter: named ?? plain(),
      carries,
      ends,
      tees: Math.max(0, ends.length - 2),
      lengthMm: own?.lengthMm ?? usualMm,
      measured: own !== undefined,
      size: tubeFor(flowLPerH),
      holds: holds ?? null,
    };
  });
}
