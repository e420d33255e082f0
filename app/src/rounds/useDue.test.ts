import { describe, expect, it } from 'vitest';
import { ref } from 'vue';
import type { Due } from '@yes-clear/core/log';
import { countText } from '@yes-clear/core/stage';
import { byDay, toLoad, useDue } from './useDue';
import type { RoundLine } from './useRounds';

const due = (id: string, at: string, bring: Due['bring'] = []): Due => ({
  id,
  at,
  what: id,
  says: `Van: ${id}`,
  because: 'by rule',
  stageId: null,
  instrumentId: null,
  work: 'changed',
  everyDays: null,
  orderBy: null,
  bring,
});
const line = (id: string, list: readonly Due[]): RoundLine => ({
  id,
  name: id === 'a' ? 'Van' : 'Bar',
  site: 'Yard',
  demo: false,
  round: { due: list } as never,
});
const filter = (count: number) => ({ part: 'sediment-5', name: 'Sediment cartridge', count, unit: 'piece' as const });
const clock = ref(new Date('2026-11-28T12:00:00'));

describe('what is due', () => {
  const lines = ref([
    line('a', [due('change filter', '2026-12-05T10:00:00.000Z', [filter(1)]), due('late', '2026-11-20T10:00:00.000Z')]),
    line('b', [
      due('change filters', '2026-12-01T10:00:00.000Z', [filter(2), { part: 'resin', name: 'Mixed bed resin', count: 2.4, unit: 'L' }]),
      due('far', '2027-06-01T10:00:00.000Z'),
    ]),
  ]);
  const items = useDue(lines, clock, ref(30)).value;
  it('within the days asked for, the soonest first, what is late as such', () => {
    expect(items.map(({ id, late }) => [id, late])).toEqual([
      ['late', true],
      ['change filters', false],
      ['change filter', false],
    ]);
    expect(items[2]).toMatchObject({ what: 'change filter', system: 'Van', day: '5 Dec' });
  });
  it('by day', () =>
    expect(byDay(items).map(({ day, late }) => [day, late])).toEqual([
      ['Overdue', true],
      ['1 December', false],
      ['5 December', false],
    ]));
  it('what to load is counted over all systems', () => {
    expect(toLoad(items).map((one) => [one.name, countText(one).replaceAll('\u202f', ' '), one.for])).toEqual([
      ['Mixed bed resin', '2.4 L', ['Bar']],
      ['Sediment cartridge', '3', ['Bar', 'Van']],
    ]);
  });
});
