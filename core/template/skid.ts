import { stage, type TemplateRow } from './row';

export const skid: TemplateRow = {
  label: 'Laboratory skid with recycle',
  says: 'Pump, four 4-inch membranes two by two, part of the waste recycled, a tank and a mixed bed behind it.',
  goal: 'laboratory',
  school: 'general',
  demandL: 6000,
  demandPer: 'day',
  stages: [
    stage('sediment', 'sediment', { cleanLossBar: 0.01, holdsG: 300 }),
    stage('carbon', 'carbon', { medium: 'granular', volumeL: 60, ratedL: 400_000, cleanLossBar: 0.01 }),
    stage('pump', 'pump', { name: 'Feed pump', pump: { kind: 'centrifugal', shutOffBar: 14, atLPerH: 2600, atBar: 8, speed: 0.83 } }),
    stage('membrane', 'membrane', {
      name: 'Array 2:2',
      elementClass: 'in4Low',
      arrangement: 'array',
      ranks: [
        { vessels: 2, elementsPerVessel: 1 },
        { vessels: 2, elementsPerVessel: 1 },
      ],
      // Two valves that hold about 60 % recovered and 5 US gal/min recycled (common practice) on a middling supply.
      valve: { kind: 'needle', kvM3PerH: 0.229 },
      recycleLPerH: 1136,
      recycleKv: 0.636,
    }),
    stage('tank', 'tank', { name: 'Storage tank', volumeL: 1500 }),
    stage('resin', 'resin', { name: 'Mixed bed', resinClass: 'mixedBed', volumeL: 40, depthMm: 800 }),
    stage('uv', 'uv', { intensityMWPerCm2: 20, chamberL: 2 }),
  ],
  // 1 to 2 m/s in the loop (common practice).
  loop: { flowLPerH: 1800, boreMm: 20, surfaceM2: 1.1, ventFilter: true },
  probes: [
    { name: 'After membranes', after: 'membrane' },
    { name: 'After mixed bed', after: 'resin' },
  ],
  drawLPerH: 600,
};
