import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { expectNear, expectWithin, value } from '../testing/close';
import { boreFromRating, restrictorFlowLPerH, restrictorLengthMm, restrictorPressureBar, frictionFactor } from './restrictor';

const tube = fc.record({ lengthMm: fc.double({ min: 10, max: 2000, noNaN: true }), boreMm: fc.double({ min: 0.2, max: 3, noNaN: true }) });
const celsius = fc.double({ min: 2, max: 40, noNaN: true });

describe('laws of a capillary', () => {
  it('pressure rises strictly with flow, through the transition too', () => {
    fc.assert(
      fc.property(tube, celsius, fc.double({ min: 0.01, max: 400, noNaN: true }), (restrictor, t, flow) => {
        expect(restrictorPressureBar(restrictor, flow * 1.01, t)).toBeGreaterThan(restrictorPressureBar(restrictor, flow, t));
      }),
    );
  });
  it('flow and pressure are each other’s inverse', () => {
    fc.assert(
      fc.property(tube, celsius, fc.double({ min: 0.05, max: 8, noNaN: true }), (restrictor, t, bar) => {
        const flow = value(restrictorFlowLPerH(restrictor, bar, t));
        expectWithin(restrictorPressureBar(restrictor, flow, t), bar, 1e-6);
      }),
    );
  });
  it('a length found for a flow passes that flow', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.8, max: 2, noNaN: true }),
        celsius,
        fc.double({ min: 50, max: 900, noNaN: true }),
        (boreMm, t, lengthMm) => {
          const flow = value(restrictorFlowLPerH({ lengthMm, boreMm }, 4, t));
          expectWithin(value(restrictorLengthMm(boreMm, flow, 4, t)), lengthMm, 1e-5);
        },
      ),
    );
  });
  it('a bore found from a rating passes the rating', () => {
    fc.assert(
      fc.property(fc.double({ min: 5, max: 120, noNaN: true }), fc.double({ min: 2, max: 6, noNaN: true }), (flow, bar) => {
        const boreMm = value(boreFromRating(flow, bar, 200, 25));
        expectWithin(restrictorPressureBar({ lengthMm: 200, boreMm }, flow, 25), bar, 1e-6);
      }),
    );
  });
  it('friction is Poiseuille below, Blasius above, and joined without a step', () => {
    expectNear(frictionFactor(1000), 0.064, 1e-12);
    expectNear(frictionFactor(10_000), 0.3164 / 10, 1e-12);
    expectWithin(frictionFactor(2000.001), frictionFactor(2000), 1e-6);
    expectWithin(frictionFactor(3999.999), frictionFactor(4000), 1e-6);
  });
  it('cut shorter it passes more, but by far less than in proportion (turbulent: length to the power −0.42)', () => {
    const flow = (lengthMm: number): number => value(restrictorFlowLPerH({ lengthMm, boreMm: 1.2 }, 4.1, 25));
    const power = Math.log(flow(100) / flow(200)) / Math.log(0.5);
    expect(power).toBeLessThan(-0.3);
    expect(power).toBeGreaterThan(-0.5);
  });
  it('says so when the bore alone passes less', () => {
    const outcome = restrictorLengthMm(0.4, 200, 4, 25);
    expect(outcome.ok ? '' : outcome.error.field).toBe('targetFlow');
  });
  it('no pressure, no flow', () => expect(value(restrictorFlowLPerH({ lengthMm: 200, boreMm: 1.2 }, 0, 25))).toBe(0));
});
