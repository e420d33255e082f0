import type { Act, Step } from '../stage';

/** A rule of order, with its reason. */
export type OrderRule = {
  /** Every step of the one stands before every step of the other; 'same': of the same stage; 'inTurn': of the stages behind it. */
  readonly kind: 'before' | 'same' | 'inTurn';
  readonly first: Act;
  readonly then: Act;
  readonly reason: string;
};

/** Work that may not be done unless other work stands before it; `where` only in a runbook that has such a step. */
export interface NeedRule {
  readonly kind: 'needs';
  readonly act: Act;
  readonly needs: Act;
  readonly where?: Act;
  readonly reason: string;
}

const before = (first: Act, then: Act, reason: string): OrderRule => ({ kind: 'before', first, then, reason });

/** The rules of order of the trade (common practice), as data: the runbook is made to keep them, the checker proves that it does. */
export const ORDER_RULES: readonly (OrderRule | NeedRule)[] = [
  before('shutOff', 'resinOut', 'A housing opened under pressure lets go at once.'),
  before('shutOff', 'remove', 'A housing opened under pressure lets go at once.'),
  before('shutOff', 'restrictorOut', 'A line opened under pressure floods the room.'),
  before('mount', 'hookUp', 'What is not fixed falls when a hose pulls.'),
  before('hookUp', 'linePressure', 'There is nothing to read before the line is connected.'),
  before('drain', 'flushFilters', 'What is flushed has to run somewhere.'),
  before('linePressure', 'seat', 'Pressure over what a household housing holds is found out before the membrane is in.'),
  {
    kind: 'same',
    first: 'reliefFree',
    then: 'prime',
    reason: 'A pump that pushes by volume bursts what is shut unless its relief valve is free.',
  },
  before('hoses', 'prime', 'A hose that is not rated for it lets go when the pump starts.'),
  before('prime', 'raisePressure', 'A dry pump is dead in minutes.'),
  before('leaks', 'raisePressure', 'A joint that weeps at low pressure lets go at full.'),
  { kind: 'same', first: 'openValve', then: 'purge', reason: 'Air leaves through a valve that stands wide open.' },
  { kind: 'same', first: 'seat', then: 'purge', reason: 'Air is driven out of a vessel that is closed.' },
  { kind: 'same', first: 'purge', then: 'flushPreservative', reason: 'Water reaches all of an element only when no air stands in it.' },
  { kind: 'same', first: 'purge', then: 'raisePressure', reason: 'Air that is squeezed hits like a hammer.' },
  { kind: 'same', first: 'raisePressure', then: 'lookAgain', reason: 'What held at low pressure is looked at under full pressure.' },
  { kind: 'same', first: 'lookAgain', then: 'taste', reason: 'Nobody waits beside joints nobody has looked at.' },
  before('flushFilters', 'seat', 'Carbon dust that reaches a membrane stays there.'),
  before('flushFilters', 'flushPreservative', 'Carbon dust that reaches a membrane stays there.'),
  {
    kind: 'inTurn',
    first: 'regenerate',
    then: 'flushPreservative',
    reason: 'Hard water through a softener nobody charged scales the membrane.',
  },
  { kind: 'same', first: 'ports', then: 'seat', reason: 'Feed, product and waste are told apart before water runs.' },
  { kind: 'same', first: 'seat', then: 'flushPreservative', reason: 'It is flushed where it sits.' },
  { kind: 'same', first: 'openValve', then: 'raisePressure', reason: 'Pressure is raised slowly from a valve that stands wide open.' },
  { kind: 'same', first: 'flushPreservative', then: 'ratio', reason: 'A dry membrane gives a false ratio.' },
  { kind: 'same', first: 'soak', then: 'ratio', reason: 'A dry membrane makes little: the ratio would be cut for a state that passes.' },
  before('leaks', 'soak', 'Nobody waits an hour beside joints that were not wiped.'),
  before('restrictorIn', 'ratio', 'The ratio belongs to the restrictor that stays.'),
  before('restrictorOut', 'restrictorIn', 'Two restrictors in one line leave no waste to speak of.'),
  before('joinProducts', 'leaks', 'Every joint is wiped.'),
  before('flushPreservative', 'pack', 'Preservative ruins resin.'),
  before('resinOut', 'preservativeIn', 'Preservative ruins resin.'),
  before('resinOut', 'flushPreservative', 'Preservative ruins resin.'),
  before('shutOff', 'emptyHousing', 'A housing opened under pressure lets go at once.'),
  before('strainer', 'preservativeIn', 'What lives in the strainer rots beside the preservative.'),
  before('emptyHousing', 'preservativeIn', 'Preservative poured on water is weaker than its sheet says.'),
  before('emptyHousing', 'plugIn', 'A pump that starts over an open housing empties it on the floor.'),
  before('plugIn', 'preservativeIn', 'The pump carries it in.'),
  before('preservativeIn', 'unplug', 'The pump carries it in.'),
  before('unplug', 'closeUp', 'A pump that starts against closed ports bursts them.'),
  before('freshFlush', 'preservativeIn', 'Preservative in salt water spends itself on what lives there.'),
  before('preservativeIn', 'closeUp', 'What is closed before it is preserved rots.'),
  before('ratio', 'pack', 'Resin spends itself on water the membrane has not been set for.'),
  before('trim', 'pack', 'Resin spends itself on water the membrane has not been set for.'),
  { kind: 'inTurn', first: 'taste', then: 'fill', reason: 'What is above the limit does not belong in the tank.' },
  { kind: 'same', first: 'raisePressure', then: 'taste', reason: 'A membrane without pressure lets salt pass.' },
  { kind: 'same', first: 'pack', then: 'rinse', reason: 'Resin is rinsed where it stands.' },
  { kind: 'inTurn', first: 'rinse', then: 'pack', reason: 'What the first one rinses out would load the second.' },
  { kind: 'same', first: 'fitFloat', then: 'tryFloat', reason: 'It is tried where it will work.' },
  { kind: 'same', first: 'tryFloat', then: 'fill', reason: 'A float that does not shut is found before the tank is full.' },
  { kind: 'inTurn', first: 'fill', then: 'rinse', reason: 'Behind a tank there is no water to rinse with until it holds some.' },
  { kind: 'inTurn', first: 'fill', then: 'flushCartridge', reason: 'Behind a tank there is no water to flush with until it holds some.' },
  before('fill', 'circulate', 'A loop pump that runs dry is dead in minutes.'),
  before('fill', 'light', 'A dry lamp overheats.'),
  { kind: 'same', first: 'flushCartridge', then: 'setDial', reason: 'The first litres are no measure of a cartridge.' },
  { kind: 'same', first: 'setDial', then: 'presetMeter', reason: 'The litres follow from the dial.' },
  before('probes', 'baseline', 'A baseline is read at the probes.'),
  before('ratio', 'baseline', 'The ratio is part of the baseline.'),
  before('rinse', 'baseline', 'Rinsing water is no baseline.'),
  before('baseline', 'handOver', 'Without figures there is nothing to hand over.'),
  before('leaks', 'handOver', 'Nobody leaves before every joint was wiped dry.'),
  { kind: 'needs', act: 'handOver', needs: 'leaks', reason: 'Nobody leaves before every joint was wiped dry.' },
  { kind: 'needs', act: 'pack', needs: 'flushPreservative', where: 'seat', reason: 'Preservative ruins resin.' },
  { kind: 'needs', act: 'preservativeIn', needs: 'resinOut', where: 'pack', reason: 'Preservative ruins resin.' },
  { kind: 'needs', act: 'fill', needs: 'tryFloat', where: 'fitFloat', reason: 'A tank without a shut-off floods the room.' },
  { kind: 'needs', act: 'raisePressure', needs: 'purge', reason: 'Air that is squeezed hits like a hammer.' },
  { kind: 'needs', act: 'raisePressure', needs: 'leaks', reason: 'A joint that weeps at low pressure lets go at full.' },
  {
    kind: 'needs',
    act: 'handOver',
    needs: 'lookAgain',
    where: 'raisePressure',
    reason: 'What held at low pressure is looked at under full pressure.',
  },
  {
    kind: 'needs',
    act: 'prime',
    needs: 'reliefFree',
    where: 'hoses',
    reason: 'A pump that pushes by volume bursts what is shut unless its relief valve is free.',
  },
  { kind: 'needs', act: 'closeUp', needs: 'unplug', where: 'plugIn', reason: 'A pump that starts against closed ports bursts them.' },
  { kind: 'needs', act: 'preservativeIn', needs: 'shutOff', reason: 'A housing opened under pressure lets go at once.' },
  { kind: 'needs', act: 'raisePressure', needs: 'openValve', reason: 'Pressure is raised from a valve that stands wide open.' },
  {
    kind: 'needs',
    act: 'raisePressure',
    needs: 'reliefFree',
    where: 'hoses',
    reason: 'A pump that pushes by volume bursts what is shut unless its relief valve is free.',
  },
  { kind: 'needs', act: 'remove', needs: 'shutOff', reason: 'A housing opened under pressure lets go at once.' },
  { kind: 'needs', act: 'resinOut', needs: 'shutOff', reason: 'A housing opened under pressure lets go at once.' },
];

/** A rule that is broken, and by which steps. */
export interface BrokenRule {
  readonly rule: OrderRule | NeedRule;
  readonly first: string;
  readonly then: string;
}

/**
 * Rules of order that a list of steps breaks; none where it can be worked through as it stands.
 *
 * @param steps in the order they are done
 * @param stages the stages in the order of the water, for rules that go from one to the next
 */
export function brokenRules(steps: readonly Step[], stages: readonly { readonly id: string }[]): BrokenRule[] {
  const place = new Map(stages.map(({ id }, i) => [id, i]));
  const along = (step: Step): number => (step.stageId === null ? -1 : (place.get(step.stageId) ?? -1));
  return ORDER_RULES.flatMap((rule): BrokenRule[] => {
    if (rule.kind === 'needs') {
      if (rule.where !== undefined && !steps.some(({ act }) => act === rule.where)) return [];
      const at = steps.findIndex(({ act }) => act === rule.act);
      if (at < 0 || steps.slice(0, at).some(({ act }) => act === rule.needs)) return [];
      return [{ rule, first: `nothing that does “${rule.needs}”`, then: steps[at]!.id }];
    }
    const broken: BrokenRule[] = [];
    steps.forEach((later, i) => {
      if (later.act !== rule.first) return;
      for (const earlier of steps.slice(0, i)) {
        if (earlier.act !== rule.then) continue;
        const [a, b] = [along(later), along(earlier)];
        const concerns = rule.kind === 'before' || (rule.kind === 'same' ? a === b && a >= 0 : a >= 0 && a < b);
        if (concerns) broken.push({ rule, first: later.id, then: earlier.id });
      }
    });
    return broken;
  });
}
