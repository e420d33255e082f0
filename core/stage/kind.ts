import { z } from 'zod';
import type { ScaleLimits } from '../dosing';
import type { BedUtilisation } from '../exchange';
import type { Goal } from '../goal';
import type { UnitFlows, UnitSolution } from '../membrane';
import type { CarbonState } from '../pretreatment';
import { day, id, maybe, name, ok, type Outcome, type UnitPreference } from '../quantity';
import type { FloatCycle } from '../storage';
import type { Water, WaterState } from '../water';
import type { FaultId } from './fault';
import type { StageFields } from './field';
import type { Finding } from './finding';
import type { PartEntry, PartGroup, PartsAround } from './part';
import type { Chemical, Piece } from './prices';
import type { StepEntry } from './step';
import type { StageUse } from './use';

/** What every stage has: an id of its own and a name. */
export const anyStage = { id, name };
/** What belongs to the piece that is fitted and not to its place: a new one begins it anew (`renewed`). */
export const PART_STATE = ['fittedOn', 'loading', 'usedShare', 'waterFactor', 'saltFactor', 'carriedEq', 'madeL'] as const;
/** What every stage has that is changed one day. */
export const fitted = { fittedOn: maybe(day) };

/** The least that is known of a stage of any kind. */
export interface AnyStage {
  readonly id: string;
  readonly kind: string;
  readonly name: string;
}

/** Water on its way through a stage. */
export interface Passing {
  readonly water: Water;
  /** Where it flows slower than any law holds, the stage says what it takes instead. */
  readonly flowLPerH: number;
  readonly use: StageUse;
  /** Whether it stands in a loop behind the last tank. */
  readonly inLoop: boolean;
}

/** What a resin stage does at this flow. */
export interface ResinState {
  readonly stageId: string;
  readonly utilisation: BedUtilisation;
  /** Share of the stoichiometric capacity used on the fuller side, 0–1 and beyond. */
  readonly usedShare: number;
  readonly feed: Water;
}

/** Water behind a stage, and what is to be known of the stage for it. */
export interface Treated {
  readonly water: Water;
  readonly resin?: ResinState;
  readonly carbon?: CarbonState;
}

/** What a stage weighs full of water and how much wall it takes. */
export interface Mounting {
  readonly wetKg: number;
  /** Metres of wall or board, side by side; tanks stand on the floor. */
  readonly wallM: number;
}

/** What parts cost on a job, as far as stages ask for it; in the job's currency. */
export interface PartPrices {
  readonly resinPerL: number;
  readonly boosterPump: number;
  readonly element: number;
  readonly tankPerL: number;
  readonly filter: number;
  readonly carbonPerL: number;
  readonly cartridgePerL: number;
  readonly calcitePerL: number;
  readonly inhibitor: number;
  readonly lamp: number;
  readonly saltPerKg: number;
  /** A piece by its name: as typed for the job, or a placeholder. */
  readonly piece: (piece: Piece) => number;
}

/** Water at a place of the train. */
export interface WaterAt {
  readonly flowLPerH: number;
  readonly pressureBar: number;
  readonly water: Water;
  readonly state: WaterState;
}

/** A stage where it stands: what comes in, what leaves, how much of it, and what it is for. */
export interface Standing<S> {
  readonly stage: S;
  readonly before: WaterAt;
  readonly after: WaterAt;
  readonly litresPerDay: number;
  readonly goal: Pick<Goal, 'id'> & Partial<Pick<Goal, 'school'>>;
  readonly units: UnitPreference;
  readonly carbon: CarbonState | null;
  /** Dirt of the water at the head of the train. */
  readonly turbidityNTU: number;
}

/** What is known of a stage once its train is solved. */
export interface Known<S> {
  readonly units: UnitPreference;
  /** The stage as its use has left it. */
  readonly worn: S;
  /** The water that comes in and the water that leaves; null where none does. */
  readonly before: WaterAt | null;
  readonly after: WaterAt | null;
  readonly resin: ResinState | null;
  readonly carbon: CarbonState | null;
  /** Of a membrane stage, where it was solved. */
  readonly unit: UnitSolution | null;
  readonly safeRecovery: number | null;
  /** Of the last tank. */
  readonly float: FloatCycle | null;
  readonly bladder: { readonly heldL: number; readonly hours: number } | null;
  /** Share of a resin that is left, by the log; null where the log does not tell. */
  readonly resinLeft: number | null;
}

/** A membrane unit as it runs. */
export type RunningUnit = Pick<UnitFlows, 'concentrateLPerH' | 'concentratePressureBar' | 'recovery' | 'noProduction'>;

/** What stands around a stage whose fields are asked for. */
export interface Around {
  readonly units: UnitPreference;
  readonly linePressureBar: number;
  readonly unit: RunningUnit | null;
  /** The stages ahead of it, from the tap on. */
  readonly ahead: readonly AnyStage[];
}

/** What stands around a stage that is put into service. */
export interface StepsAround<S> {
  readonly units: UnitPreference;
  /** Whether it is the first of its kind on the way of the water. */
  readonly first: boolean;
  /** On which side of the membrane it stands; 'alone' where there is none. */
  readonly side: 'ahead' | 'behind' | 'alone';
  /** Whether resin stands behind it. */
  readonly resinBehind: boolean;
  /** Whether carbon is among what is flushed before the membrane. */
  readonly carbon: boolean;
  /** Where the product goes when a tank is full: behind a pump that pushes on, it is never shut in. Null where a float may shut it. */
  readonly pushedTo: 'overboard' | 'drain' | null;
  /** Where it stands in the train as it should run today; null while that cannot be solved. */
  readonly standing: Standing<S> | null;
  /** Of a membrane stage, as it should run today. */
  readonly unit: UnitSolution | null;
  /** Wanted waste : product. */
  readonly wasteTarget: number;
  /** Colours of this system's tubing. */
  /** Of the tubing here, where somebody has said. */
  readonly colours: { readonly feed: string | null; readonly product: string | null; readonly waste: string | null };
  /** Most salt the goal allows at the outlet, µS/cm; null where it does not say. */
  readonly mostUScm: number | null;
  /** Smallest step of the meter that reads the water, µS/cm. */
  readonly meterStepUScm: number;
}

/** What is done to a part or a meter, again and again. */
export const SERVICE_WORK = [
  'changed',
  'movedUp',
  'cleaned',
  'rinsed',
  'refilled',
  'flushed',
  'regenerated',
  'battery',
  'compared',
  'adjusted',
  'task',
] as const;
export type ServiceWork = (typeof SERVICE_WORK)[number];

/** Something to be done to a stage again and again, or once. */
export interface Upkeep {
  /** What it is written down as when it is done. */
  readonly work: ServiceWork;
  /** What is done, before the name of the stage: "change", "salt of". */
  readonly says: string;
  /** Days after fitting at which it is due at the latest. */
  readonly afterDays?: number;
  /** Days from one time to the next. */
  readonly everyDays?: number;
  /** Litres through it until it is due. */
  readonly litresLeft?: number;
  /** Litres it is good for when new, where litres count. */
  readonly litresNew?: number;
  /** How often its price is paid each time, where it is bought by measure: kilograms of salt. */
  readonly takes?: number;
}

/** Something a stage uses up, by its weight as 100 %. */
export interface ChemicalUse {
  readonly piece: Chemical;
  readonly kgPerDay: number;
}

/** Lines of cost that parts are booked to. */
export const PART_LINES = ['resin', 'cartridges', 'carbon', 'prefilters', 'membrane', 'salt'] as const;
export type PartLine = (typeof PART_LINES)[number];

/** What a stage is built as: how it stands and how it is drawn. */
export type Form = 'cartridge' | 'vessel' | 'tank' | 'machine' | 'line';

/** Threads of ports as pieces are sold with them, inches (common practice). */
export type Thread = '1/4' | '3/8' | '1/2' | '3/4' | '1';

/** How a stage is connected: a piece with an inlet and an outlet, one that drains or takes power as well, or only tubing of a length. */
export interface Plumbed {
  readonly drains: boolean;
  /** It wants mains power. */
  readonly powered: boolean;
  /** Length of what is only tubing, mm; null of a piece. */
  readonly tubeMm: number | null;
  /** Thread of its ports by its class, whatever tube comes to it; null where tube goes straight in. */
  readonly thread: Thread | null;
}

/**
 * What a stage changes in the water: nothing a kit would see; gases and traces (chlorine, CO₂); hardness, alkalinity or
 * the ions that carry the current; or all salt, as a membrane does.
 */
export type Touches = 'nothing' | 'traces' | 'minerals' | 'salt';

/** A kind offered for a purpose of its own. */
export interface StageVariant<S> {
  readonly id: string;
  readonly label: string;
  readonly says: string;
  /** Ahead of every stage, or behind all of them. */
  readonly where: 'first' | 'last';
  readonly changes: Partial<S>;
}

/**
 * All that the rest of the house knows of a kind of stage. Every entry is asked for: a kind says "nothing" where it
 * has nothing to say, so that the compiler names what a new kind forgot.
 */
export interface StageKindSpec<S extends AnyStage, Schema extends z.ZodObject = z.ZodObject> {
  readonly kind: S['kind'];
  readonly label: string;
  /** What it is for, in a line. */
  readonly says: string;
  /** Where a new one belongs by common practice, counted from the tap; those of one place keep their order. */
  readonly place: number;
  readonly schema: Schema;
  /** What a new one starts with; every value can be edited. */
  readonly defaults: Omit<S, 'id'>;
  /** The same kind for another purpose: where it belongs then, and what it starts with. */
  readonly variants?: readonly StageVariant<S>[];
  readonly form: Form;
  readonly touches: (stage: S) => Touches;
  /** Is flushed with the membrane still out. */
  readonly prefilter: boolean;
  /** Offered in a use taken off the train. */
  readonly inUses: boolean;
  /** How far a membrane's waste may go past saturation for it; null where it has no part in that. */
  readonly holdsScale: (stage: S) => ScaleLimits | null;
  /** The water behind it. A membrane is solved by the network: here it lets all through. */
  readonly treat: (stage: S, passing: Passing) => Outcome<Treated>;
  /** Pressure slope in the path of a flow, bar per L/h. */
  readonly slopeBar: (stage: S, flowLPerH: number, temperatureC: number) => number;
  /** What it takes by lifting the water, bar. */
  /** Pressure its housing holds, bar; not said where nothing of it is closed under pressure, or its own limit is judged elsewhere. */
  readonly holdsBar?: (stage: S) => number | null;
  readonly riseBar: (stage: S) => number;
  /** Whether the water lies open behind it, without pressure. */
  readonly breaksPressure: (stage: S) => boolean;
  readonly mounting: (stage: S) => Mounting;
  /** What the piece, or what fills it, costs to buy again; null where no price is asked for. */
  readonly price: (stage: S, prices: PartPrices) => number | null;
  /** The stage as its use has left it; what was entered as measured stands. */
  readonly worn: (stage: S, use: StageUse, turbidityNTU: number) => S;
  /** The stage with a new piece in its place: what was worn, loaded or measured of the old one goes. */
  readonly renewed: (stage: S) => S;
  /** Share of the dirt that goes on behind it. */
  readonly dirtPassed: (stage: S) => number;
  /** Its own work at commissioning; the runbook puts it in its place. One step of an id is done once for all that ask for it. */
  readonly steps: (stage: S, around: StepsAround<S>) => readonly StepEntry[];
  /** How it is plumbed. */
  readonly plumbed: (stage: S) => Plumbed;
  /** Tools it asks for beyond those of any job. */
  readonly tools: (stage: S) => readonly string[];
  /** Under which heading its pieces stand. */
  readonly partGroup: PartGroup;
  /** What it is built of, wearing and lasting pieces; tubing and fittings are counted from its ports. */
  readonly parts: (stage: S, around: PartsAround) => readonly PartEntry[];
  readonly upkeep: (stage: S, standing: Standing<S> | null) => readonly Upkeep[];
  /** Line of cost its own price is booked to. */
  readonly costLine: PartLine;
  /** Litres it sends to the drain by itself, now and then, for a litre that leaves it: the rinse of a regeneration. */
  readonly drainShare: (stage: S, standing: Standing<S>) => number;
  /** Of the water that runs through it, what goes on; the rest runs to the drain meanwhile. */
  readonly keeps: (stage: S) => number;
  /** Electricity it draws while water runs through it, W; what a pump draws, the network says. */
  readonly powerW: (stage: S, at: Pick<Standing<S>, 'before' | 'after'>) => number;
  /** What of acid, alkali and the like it uses up. */
  readonly chemicals: (stage: S, standing: Standing<S>) => readonly ChemicalUse[];
  /** What the piece costs to buy with its housing, without what is filled in and bought again. */
  readonly buys: (stage: S, prices: PartPrices) => number;
  /** What may go wrong with it as it is built. */
  readonly faults: (stage: S) => readonly FaultId[];
  /** Years it serves by common practice, and what goes wrong of age; null where nothing does. */
  readonly wears: { readonly years: number; readonly causes: readonly FaultId[] } | null;
  /** What work on it may bring about. */
  readonly raises: readonly FaultId[];
  /** What it says of itself where it stands. */
  readonly findings: (standing: Standing<S>) => readonly Finding[];
  /** Figures that belong to it alone: name and text. */
  readonly facts: (known: Known<S>) => readonly (readonly [string, string])[];
  /** Share that is spent, loaded or full, for the picture. */
  readonly fill: (known: Known<S>) => number;
  readonly fields: (stage: S, around: Around) => StageFields<S>;
  /** What its folded fields are about. */
  readonly folded: string;
}

/** Declares a kind of stage. Its schema gives the type all the rest is held to. */
export const defineStage = <Schema extends z.ZodObject & z.ZodType<AnyStage>>(
  schema: Schema,
  spec: Omit<StageKindSpec<z.infer<Schema>, Schema>, 'schema'>,
): StageKindSpec<z.infer<Schema>, Schema> => ({ ...spec, schema });

/** For what has an inlet and an outlet. */
export const inAndOut = (): Plumbed => ({ drains: false, powered: false, tubeMm: null, thread: null });
/** The same, through ports of a thread. */
export const threaded = (thread: Thread): Plumbed => ({ ...inAndOut(), thread });
/** For what has nothing to say. */
export const none = (): readonly never[] => [];
export const zero = (): number => 0;
export const neverOpen = (): boolean => false;
/** For what leaves the water as it is. */
export const unchanged = (_stage: unknown, { water }: Passing): Outcome<Treated> => ok({ water });
/** For what does not wear, or whose wear is kept beside it. */
export const asFitted = <S>(stage: S): S => stage;
/** For what sends nothing to the drain while it runs. */
export const keepsAll = (): number => 1;
/** For what keeps no scale from settling. */
export const holdsNothing = (): null => null;
/** For what lets all dirt on. */
export const allPasses = (): number => 1;
/** For what no price is asked for. */
export const noPrice = (): null => null;
