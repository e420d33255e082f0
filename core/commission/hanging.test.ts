import { describe, expect, it } from 'vitest';
import type { System, TemplateId } from '../file';
import { systemFromTemplate } from '../template';
import { hangingOf, fixingStep } from './hanging';
import { partsOf, toolsFor } from './parts';

const from = (template: TemplateId): System => systemFromTemplate({ id: 's', name: 'n', site: 's', template, at: '2026-01-01T00:00:00Z' });
const names = (system: System): string =>
  partsOf(system, null)
    .map(({ name }) => name)
    .join('; ');
const onCart = (system: System): System => ({ ...system, build: { ...system.build, hangs: 'cart' } });

describe('what a system is fixed to', () => {
  it.each([
    ['marineHousehold', 'wall'],
    ['skid', 'floor'],
    ['watermaker', 'hull'],
    ['counterHard', 'counter'],
  ] as const)('%s: %s, until somebody says otherwise', (template, hangs) => expect(hangingOf(from(template))).toBe(hangs));
  it('a cart is bolted, not screwed to studs, in parts, tools and step', () => {
    const cart = onCart(from('vanCart'));
    expect(names(cart)).toContain('lock nuts');
    for (const text of [names(cart), toolsFor(cart).join(), fixingStep(cart).how]) expect(text).not.toMatch(/stud/i);
  });
  it('a boat has its sea cock, strainer and three-way valve, and no studs', () => {
    const boat = from('watermaker');
    for (const piece of ['Sea cock', 'Strainer', 'Three-way valve', 'Stainless bolts']) expect(names(boat)).toContain(piece);
    expect(`${names(boat)} ${toolsFor(boat).join()} ${fixingStep(boat).how}`).not.toMatch(/stud/i);
  });
  it('a skid has switches, a solenoid and a controller, and no float of a household', () => {
    const skid = names(from('skid'));
    for (const piece of ['Level switch', 'Inlet solenoid', 'Controller', 'Loop pump', 'Anchor bolts']) expect(skid).toContain(piece);
    expect(skid).not.toContain('Float valve');
  });
  it('a household keeps its studs and its float', () => expect(names(from('marineHousehold'))).toMatch(/studs[\s\S]*|Float valve/));
});
