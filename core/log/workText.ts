import { allStages, type Service, type System } from '../file';
import { kindOf, SERVICE_WORK, type ServiceWork, type Stage } from '../stage';
import { workedOn } from './services';
import { readWhen, type LocalClock } from './when';

/**
 * Work as people write it down beside their readings: "new filters 3 May", "resin changed 2026-03-10, was due". Read into
 * what is kept as work, to be looked at before it counts; and written the same way into a table, so that it comes back.
 */

/** Work read out of a text. */
export interface WorkRead {
  readonly stageId: string | null;
  readonly instrumentId: string | null;
  readonly work: ServiceWork;
  readonly why: Service['why'];
  /** The day written with it, as an instant; null where the reading beside it tells. */
  readonly at: string | null;
  readonly text: string;
}

/** Words of a kind of part, in the languages logs are kept in. */
const PARTS: readonly (readonly [RegExp, (system: System) => Pick<WorkRead, 'stageId' | 'instrumentId'> | null])[] = [
  [/\b(tds )?(meter|pen|probe|messgerät|stift)\b/i, (system) => ofMeter(system)],
  [/\b(restrictor|needle valve|waste valve|drossel|ventil)\b/i, (system) => ofKind(system, 'membrane')],
  [/\b(membranes?|element|ro|membran)\b/i, (system) => ofKind(system, 'membrane')],
  [/\b(carbon|charcoal|block|kohle|aktivkohle)\b/i, (system) => ofKind(system, 'carbon')],
  [
    /\b(resin|di|cartridge|bed|beds|lead|lag|harz|patrone|mischbett|rotated|moved up)\b/i,
    (system) => ofKind(system, 'resin') ?? ofKind(system, 'decarboniser'),
  ],
  [/\b(sediment|pre-?filters?|filters?|vorfilter|feinfilter)\b/i, (system) => ofPrefilter(system)],
  [/\b(salt|softener|salz|enthärter)\b/i, (system) => ofKind(system, 'softener')],
  [/\b(lamp|uv|lampe)\b/i, (system) => ofKind(system, 'uv')],
];

const ofStage = (stage: Stage | undefined): Pick<WorkRead, 'stageId' | 'instrumentId'> | null =>
  stage ? { stageId: stage.id, instrumentId: null } : null;
const ofKind = ({ train }: System, kind: Stage['kind']): ReturnType<typeof ofStage> =>
  ofStage(allStages(train).find((stage) => stage.kind === kind));
const ofPrefilter = ({ train }: System): ReturnType<typeof ofStage> =>
  ofStage(
    allStages(train).find((stage) => kindOf(stage).prefilter && stage.kind !== 'carbon') ??
      allStages(train).find((stage) => kindOf(stage).prefilter),
  );
function ofMeter({ train, instruments }: System): Pick<WorkRead, 'stageId' | 'instrumentId'> | null {
  const used = train.probes[0]?.instrumentId ?? instruments[0]?.id;
  return used === undefined ? null : { stageId: null, instrumentId: used };
}

const MOVED = /\b(moved up|move up|rotated|rotation|others? up|aufgerückt|getauscht und aufgerückt)\b/i;
const WORKS: readonly (readonly [RegExp, ServiceWork])[] = [
  [MOVED, 'movedUp'],
  [/\b(regenerated|regeneriert)\b/i, 'regenerated'],
  [/\b(batter(y|ies)|batterie)\b/i, 'battery'],
  [/\b(compared|calibrated|checked against|verglichen|kalibriert)\b/i, 'compared'],
  [/\b(flushed|gespült)\b/i, 'flushed'],
  [/\b(rinsed|ausgespült)\b/i, 'rinsed'],
  [/\b(cleaned|descaled|gereinigt|entkalkt)\b/i, 'cleaned'],
  [/\b(adjusted|set again|turned|cut|reseated|eingestellt)\b/i, 'adjusted'],
  [/\b(salt|salz).*(added|filled|nachgefüllt)|\b(filled up|topped up|nachgefüllt)\b/i, 'refilled'],
  [/\b(changed|change|new|replaced|renewed|refilled|repacked|swapped|gewechselt|ersetzt|neue?s?r?)\b/i, 'changed'],
];

const WHYS: readonly (readonly [RegExp, Service['why']])[] = [
  [/\b(spent|used up|exhausted|product was up|was up|erschöpft|verbraucht)\b/i, 'spent'],
  [/\b(still good|before (the|it)|early|as a precaution|noch gut)\b/i, 'early'],
  [/\b(due|as planned|on schedule|scheduled|planmäßig|fällig)\b/i, 'due'],
  [/\b(broken|leaking|torn|cracked|kaputt|defekt)\b/i, 'broken'],
];

/** A day anywhere in a text, and the text without it. */
function dayIn(text: string, clock: LocalClock): { readonly at: string | null; readonly rest: string } {
  for (const match of text.matchAll(/(?:^|\s)(?=\d|(?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*\.?\s+\d)/gi)) {
    const from = match.index + match[0].length;
    const when = readWhen(text.slice(from).replace(/[.;)]+$/, ''), clock);
    if (!when || when.problem) continue;
    const moment = when.timed ? when.moment : { ...when.moment, hour: 12, minute: 0 };
    return { at: clock.instantOf(moment), rest: `${text.slice(0, from)} ${text.slice(from + when.length)}` };
  }
  return { at: null, rest: text };
}

/**
 * Reads work out of a text, one piece between semicolons.
 *
 * @returns pieces that name a part of this system and what was done to it; the rest is a note
 */
export function readWork(system: System, text: string, clock: LocalClock): WorkRead[] {
  return text.split(/;|\n/).flatMap((piece): WorkRead[] => {
    const said = piece.trim();
    if (said === '') return [];
    const { at, rest } = dayIn(said, clock);
    const own = ownWork(system, rest);
    if (own) return [{ ...own, at, text: said }];
    const work = WORKS.find(([pattern]) => pattern.test(rest))?.[1];
    const part = partOf(system, rest, work);
    if (!work || !part) return [];
    const why = WHYS.find(([pattern]) => pattern.test(rest))?.[1] ?? 'notSaid';
    // A restrictor that is replaced is work on its unit, as one that is cut.
    const onUnit = part.stageId !== null && /\b(restrictor|valve|drossel|ventil)\b/i.test(rest);
    return [{ ...part, work: onUnit && work === 'changed' ? 'adjusted' : work, why, at, text: said }];
  });
}

/** The part a text names: by its own name before a word for its kind. */
function partOf(system: System, text: string, work: ServiceWork | undefined): Pick<WorkRead, 'stageId' | 'instrumentId'> | null {
  const lower = text.toLowerCase();
  const named = [...allStages(system.train)]
    .sort((a, b) => b.name.length - a.name.length)
    .find(({ name }) => name.length > 3 && lower.includes(name.toLowerCase()));
  if (named && work !== 'movedUp') return ofStage(named);
  for (const [pattern, find] of PARTS) {
    const found = pattern.test(text) ? find(system) : null;
    if (found) return found;
  }
  return ofStage(named);
}

/** Works and reasons in the words a table of this system is written with. */
const OWN: Readonly<Record<ServiceWork, string>> = {
  changed: 'changed',
  movedUp: 'removed, next moved up',
  cleaned: 'cleaned',
  rinsed: 'rinsed',
  refilled: 'filled up',
  flushed: 'flushed',
  regenerated: 'regenerated',
  battery: 'new battery',
  compared: 'compared',
  adjusted: 'adjusted',
  task: 'done',
};
const OWN_WHY: Readonly<Record<Service['why'], string>> = {
  due: 'due',
  spent: 'spent',
  early: 'early',
  broken: 'broken',
  other: 'other',
  notSaid: '',
};

/** Work as a table holds it: "Sediment: changed 2026-05-03, due". */
export function workText(system: System, { stageId, instrumentId, name, work, why }: Service, day: string): string {
  // Of what is not there any more, what it was called then.
  const part = workedOn({ ...system, name }, { stageId, instrumentId });
  const reason = OWN_WHY[why];
  return `${part.replaceAll(/[;:]/g, ' ')}: ${OWN[work]} ${day}${reason === '' ? '' : `, ${reason}`}`;
}

function ownWork(system: System, text: string): Omit<WorkRead, 'at' | 'text'> | null {
  const [name, rest] = text.split(/:(.*)/s).map((part) => part?.trim()) as [string, string?];
  if (!rest) return null;
  const spelled = (one: string): string => one.replaceAll(/[;:]/g, ' ').trim().toLowerCase();
  const stage = allStages(system.train).find((one) => spelled(one.name) === spelled(name));
  const meter = system.instruments.find((one) => spelled(one.name) === spelled(name));
  const [done, reason] = rest.split(/,(?!\s*next)/).map((part) => part.replaceAll(/\s+/g, ' ').trim()) as [string, string?];
  const work = SERVICE_WORK.find((one) => done.toLowerCase() === OWN[one]);
  if (!work || (!stage && !meter)) return null;
  const why = (Object.keys(OWN_WHY) as Service['why'][]).find((one) => reason && OWN_WHY[one] === reason.toLowerCase()) ?? 'notSaid';
  return { stageId: stage?.id ?? null, instrumentId: stage ? null : meter!.id, work, why };
}
