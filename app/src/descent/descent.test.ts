import { behind } from '@yes-clear/core/file';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { stageKind, type StageKind } from '@yes-clear/core/stage';
import { overlaps, textWidth } from './labels';
import type { DescentInput, Drawing, Frame } from './drawing';
import { drawDescent } from './layout';
import { waterColour } from './waterColour';

/** CIE lightness of an rgb() text. */
function lightness(colour: string): number {
  const [r = 0, g = 0, b = 0] = (colour.match(/[\d.]+/g) ?? []).map((part) => {
    const c = Number(part) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  });
  const Y = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  return Y > 0.008856 ? 116 * Math.cbrt(Y) - 16 : 903.3 * Y;
}

describe('water colour', () => {
  it('grows lighter from brine to pure water without a step back', () => {
    let before = -1;
    for (let log = 5; log >= -1.3; log -= 0.05) {
      const now = lightness(waterColour(10 ** log));
      expect(now, `at 10^${log.toFixed(2)} µS/cm`).toBeGreaterThan(before);
      before = now;
    }
  });
});

const frame = (columns: number): Frame => ({ size: 'large', width: 100 + columns * 96, height: 384, left: 100, columnWidth: 96 });
function input(kinds: readonly StageKind[], levels: readonly number[]): DescentInput {
  const stages = kinds.map((kind, i) => ({
    id: `s${i}`,
    kind,
    name: `${kind[0]!.toUpperCase()}${kind.slice(1)} ${i + 1}`,
    form: stageKind(kind).form,
  }));
  const station = (after: string, ec25UScm: number): DescentInput['stations'][number] => ({
    after,
    state: { ec25UScm } as DescentInput['stations'][number]['state'],
  });
  const membrane = stages.find((stage) => stage.kind === 'membrane');
  return {
    stages,
    pressureUnit: 'bar',
    stations: [station('tap', levels[0]!), ...stages.map((stage, i) => station(stage.id, levels[i + 1]!))],
    waste: membrane ? { after: membrane.id, ec25UScm: levels[0]! * 1.3, texts: ['waste to drain · 805 µS/cm · 3.1 : 1', '3.1 : 1'] } : null,
    recycle: null,
    bypass: null,
    secondWaste: null,
    goal: { low: null, high: 2, texts: ['Goal: reads 0 ppm (below 2 µS/cm)'] },
    probes: [{ id: 'p', ...behind('tap'), texts: ['306 ppm'], expected: levels[0]!, baseline: null, latest: levels[0]! }],
    fill: {},
    tapTexts: ['Tap'],
  };
}
const usual = input(['sediment', 'carbon', 'membrane', 'resin', 'tank'], [620, 620, 620, 12, 0.06, 1]);

describe('pressure view', () => {
  const pressures = [4.2, 4.1, 4.0, 0.1, 0.05, 0];
  const stations = usual.stations.map((station, i) => ({ ...station, pressureBar: pressures[i]! }));
  const ticksIn = (pressureUnit: 'bar' | 'psi') => drawDescent({ ...usual, stations, height: 'pressure', pressureUnit }, frame(6)).ticks;
  it('names round pressures in the unit of the system, at the height of the same pressure', () => {
    expect(ticksIn('bar').map((tick) => tick.text)).toEqual(['0 bar', '1 bar', '2 bar', '3 bar', '4 bar']);
    expect(ticksIn('psi').map((tick) => tick.text)).toEqual(['0 psi', '10 psi', '20 psi', '30 psi', '40 psi', '50 psi', '60 psi']);
    const [bar, psi] = [ticksIn('bar'), ticksIn('psi')];
    const perBar = (bar[0]!.y - bar[4]!.y) / 4;
    // 60 psi = 4.1369 bar: exact by definition of the pound-force per square inch.
    expect((psi[0]!.y - psi[6]!.y) / perBar).toBeCloseTo(4.1369, 3);
  });
});

describe('branches', () => {
  const skid = input(['sediment', 'pump', 'membrane', 'tank'], [480, 480, 750, 9, 9]);
  it('concentrate that is led back climbs over the waste, dashed, and comes down before its pump', () => {
    const drawing = drawDescent({ ...skid, recycle: { from: 's2', to: 's1', ec25UScm: 1600, texts: ['1136 L/h led back'] } }, frame(5));
    const recycle = drawing.pipes.find((pipe) => pipe.id === 'recycle')!;
    const waste = drawing.pipes.find((pipe) => pipe.id === 'waste')!;
    const [pump, membrane] = ['s1', 's2'].map((id) => drawing.vessels.find((vessel) => vessel.stageId === id)!.box);
    expect(recycle.dashed).toBe(true);
    expect(recycle.points[1]![1]).toBeLessThan(waste.points[0]![1]);
    expect(recycle.points[0]![0]).toBeGreaterThan(membrane!.x);
    expect(recycle.points.at(-1)![0]).toBeLessThan(pump!.x);
    expect(drawing.labels.map((label) => label.text)).toContain('1136 L/h led back');
  });
  it('feed led past the membrane runs level and joins behind it', () => {
    const drawing = drawDescent(
      { ...skid, bypass: { past: 's2', from: null, ec25UScm: 750, texts: ['20 % past the membrane'] } },
      frame(5),
    );
    const bypass = drawing.pipes.find((pipe) => pipe.id === 'bypass')!;
    const membrane = drawing.vessels.find((vessel) => vessel.stageId === 's2')!.box;
    expect(bypass.points[0]![1]).toBe(bypass.points[1]![1]);
    expect(bypass.points[0]![0]).toBeLessThan(membrane.x);
    expect(bypass.points[2]![0]).toBeGreaterThan(membrane.x + membrane.width);
    expect(drawing.pipes.some((pipe) => pipe.id === 'recycle')).toBe(false);
  });
  it('the waste of a second pass that goes back climbs over the train to the first pump', () => {
    const second = { after: 's2', to: 's1', ec25UScm: 40, pressureBar: 8, texts: ['40 µS/cm led back'] };
    const drawing = drawDescent({ ...skid, secondWaste: second }, frame(5));
    const line = drawing.pipes.find((pipe) => pipe.id === 'second-waste')!;
    const pump = drawing.vessels.find((vessel) => vessel.stageId === 's1')!.box;
    expect(line.dashed).toBe(true);
    expect(line.points[1]![1]).toBeLessThan(Math.min(...drawing.vessels.map((vessel) => vessel.box.y)));
    expect(line.points.at(-1)![0]).toBeLessThan(pump.x);
    const drained = drawDescent({ ...skid, secondWaste: { ...second, to: null } }, frame(5));
    expect(drained.pipes.find((pipe) => pipe.id === 'second-waste')!.open).toBe('right');
  });
  it('taken off further ahead it runs under what it leaves out', () => {
    const drawing = drawDescent(
      { ...skid, bypass: { past: 's2', from: 's0', ec25UScm: 750, texts: ['20 % past the membrane'] } },
      frame(5),
    );
    const bypass = drawing.pipes.find((pipe) => pipe.id === 'bypass')!;
    const [filter, pump] = ['s0', 's1'].map((id) => drawing.vessels.find((vessel) => vessel.stageId === id)!.box);
    expect(bypass.points[0]![0]).toBeGreaterThan(filter!.x + filter!.width);
    expect(bypass.points[0]![0]).toBeLessThan(pump!.x);
    expect(bypass.points[1]![1]).toBeGreaterThan(pump!.y + pump!.height);
  });
});

describe('the descent', () => {
  it('falls where a stage cleans and stays level where none does', () => {
    const drawing = drawDescent(usual, frame(6));
    const levels = drawing.pipes.filter((pipe) => pipe.id !== 'waste').map((pipe) => pipe.points[0]![1]);
    expect(levels[0]).toBe(levels[1]);
    expect(levels[3]!).toBeGreaterThan(levels[2]! + 60);
    expect(levels[4]!).toBeGreaterThan(levels[3]! + 60);
  });
  it('sends the concentrate upwards, for it is saltier', () => {
    const drawing = drawDescent(usual, frame(6));
    const waste = drawing.pipes.find((pipe) => pipe.id === 'waste')!;
    expect(waste.points[0]![1]).toBeLessThan(drawing.pipes.find((pipe) => pipe.id === 'to-s2')!.points[0]![1]);
  });
  it('a vessel spans the fall of its line', () => {
    const membrane = drawDescent(usual, frame(6)).vessels[2]!;
    const [inY, outY] = [
      drawDescent(usual, frame(6)).pipes.find((p) => p.id === 'to-s2')!.points[0]![1],
      drawDescent(usual, frame(6)).pipes.find((p) => p.id === 'to-s3')!.points[0]![1],
    ];
    expect(membrane.box.y).toBeLessThan(inY);
    expect(membrane.box.y + membrane.box.height).toBeGreaterThan(outY);
  });
  it('stages without water stand dry', () => {
    const dry = { ...usual, stations: usual.stations.slice(0, 3) };
    expect(drawDescent(dry, frame(6)).vessels.map((vessel) => vessel.dry)).toEqual([false, false, true, true, true]);
  });
  it.each(['strip', 'thumb'] as const)('is drawn as a %s too, without words', (size) => {
    const drawing = drawDescent(usual, { size, width: 186, height: 52, left: 0, columnWidth: 31 });
    expect(drawing.labels).toHaveLength(0);
    expect(drawing.pipes.length).toBeGreaterThanOrEqual(6);
  });

  const boxes = (drawing: Drawing) =>
    drawing.labels.map((label) => {
      const width = textWidth(label.text, label.size, label.bold);
      const x = label.anchor === 'start' ? label.x : label.anchor === 'end' ? label.x - width : label.x - width / 2;
      return { id: label.id, x, y: label.y - label.size * 0.8, width, height: label.size };
    });
  it('words never cover each other, a line or a vessel, from 3 to 16 stages', () => {
    const kinds: StageKind[] = [
      'sediment',
      'carbon',
      'carbon',
      'membrane',
      'resin',
      'resin',
      'tank',
      'sediment',
      'carbon',
      'resin',
      'tank',
      'sediment',
      'carbon',
      'carbon',
      'resin',
      'tank',
    ];
    const levels = [620, 620, 620, 620, 12, 0.3, 0.06, 1, 1, 1, 0.06, 1, 1, 1, 1, 0.06, 1];
    for (let count = 3; count <= 16; count++) {
      const drawing = drawDescent(input(kinds.slice(0, count), levels), frame(count + 1));
      const labels = boxes(drawing);
      labels.forEach((a, i) => labels.slice(i + 1).forEach((b) => expect(overlaps(a, b), `${count}: ${a.id} on ${b.id}`).toBe(false)));
      for (const label of labels)
        for (const vessel of drawing.vessels) expect(overlaps(label, vessel.box), `${count}: ${label.id} on ${vessel.name}`).toBe(false);
    }
  });
  it('draws any levels without a number that is not one', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 1e5, noNaN: true }), { minLength: 6, maxLength: 6 }), (levels) => {
        const drawing = drawDescent(input(['sediment', 'carbon', 'membrane', 'resin', 'tank'], levels), frame(6));
        expect(JSON.stringify(drawing)).not.toContain('null,null');
        for (const pipe of drawing.pipes) for (const [px, py] of pipe.points) expect(Number.isFinite(px) && Number.isFinite(py)).toBe(true);
      }),
    );
  });
});
