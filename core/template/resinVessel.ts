import { stage, type TemplateRow } from './row';

export const resinVessel: TemplateRow = {
  label: 'Resin vessel only',
  says: 'No membrane: quick, simple, and dear on hard water.',
  goal: 'windowCleaning',
  demandL: 600,
  demandPer: 'week',
  stages: [stage('sediment', 'sediment'), stage('resin', 'resin', { resinClass: 'mixedBed', volumeL: 11, depthMm: 450 })],
  probes: [{ name: 'After resin', after: 'resin' }],
  drawLPerH: 120,
};
