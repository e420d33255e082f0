import { Router } from 'express';
import type { SupplyReport } from '@yes-clear/core/report';

/**
 * Made-up supply reports by zone: a stand-in for a supplier, so that fetching one can be tried. Places and figures
 * are invented; units and bases differ on purpose, as they do between suppliers. See docs/supply-reports.md.
 */
const row = (parameter: string, unit: string, mean: string): SupplyReport['rows'][number] => ({ parameter, unit, mean });

const REPORTS: readonly SupplyReport[] = [
  {
    zone: 'hollow-fell',
    name: 'Hollow Fell, reservoir',
    period: { from: '2026-01-01', to: '2026-06-30' },
    rows: [
      row('Total hardness', 'mg/l Ca', '15.3'),
      row('Calcium', 'mg/l', '12.1'),
      row('Magnesium', 'mg/l', '1.9'),
      row('Sodium', 'mg/l', '8.2'),
      row('Potassium', 'mg/l', '1.0'),
      row('Alkalinity as HCO3', 'mg/l', '35.6'),
      row('Chloride', 'mg/l', '11.0'),
      row('Sulphate', 'mg/l', '10.1'),
      row('Nitrate', 'mg/l NO3', '2.0'),
      row('Silica as SiO2', 'mg/l', '4.0'),
      row('Fluoride', 'mg/l', '<0.1'),
      row('Free chlorine', 'mg/l', '0.45'),
      row('Conductivity at 20 °C', 'µS/cm', '113'),
      row('Hydrogen ion', 'pH units', '7.6'),
      row('Turbidity', 'NTU', '0.2'),
      row('Aluminium', 'µg/l', '14'),
    ],
  },
  {
    zone: 'quill-down',
    name: 'Quill Down, boreholes in chalk',
    period: { from: '2026-01-01', to: '2026-06-30' },
    rows: [
      row('Hardness (Clark)', '°Clark', '19.8'),
      row('Calcium', 'mg/l', '105'),
      row('Magnesium', 'mg/l', '5.1'),
      row('Sodium', 'mg/l', '12.2'),
      row('Potassium', 'mg/l', '2.0'),
      row('Alkalinity', 'mg/l as CaCO3', '234'),
      row('Chloride', 'mg/l', '22'),
      row('Sulphate', 'mg/l', '25'),
      row('Nitrate as N', 'mg/l', '5.6'),
      row('Silicon', 'mg/l', '5.6'),
      row('Boron', 'µg/l', '28'),
      row('Free chlorine', 'mg/l', '0.3'),
      row('Conductivity at 20 °C', 'µS/cm', '531'),
      row('Hydrogen ion', 'pH units', '7.4'),
      row('Lead', 'µg/l', '<0.5'),
    ],
  },
  {
    zone: 'marrow-quay',
    name: 'Marrow Quay, river works',
    period: { from: '2026-01-01', to: '2026-06-30' },
    rows: [
      row('Gesamthärte', '°dH', '9,8'),
      row('Calcium', 'mg/l', '55,4'),
      row('Magnesium', 'mg/l', '8,9'),
      row('Natrium', 'mg/l', '28,1'),
      row('Kalium', 'mg/l', '4,0'),
      row('Säurekapazität bis pH 4,3', 'mmol/l', '2,58'),
      row('Chlorid', 'mg/l', '38,2'),
      row('Sulfat', 'mg/l', '44,6'),
      row('Nitrat', 'mg/l', '12,1'),
      row('Ammonium', 'mg/l', '<0,05'),
      row('Chloramine', 'mg/l', '0,9'),
      row('Leitfähigkeit 25 °C', 'mS/m', '48,6'),
      row('pH', '', '7,7'),
    ],
  },
];

/** `GET /api/supply` lists the zones, `GET /api/supply/:zone` hands out one report. */
export function supplyRoutes(): Router {
  const routes = Router();
  routes.get('/', (_request, response) => {
    response.json({ zones: REPORTS.map(({ zone, name }) => ({ zone, name })) });
  });
  routes.get('/:zone', (request, response) => {
    const report = REPORTS.find((candidate) => candidate.zone === request.params.zone);
    if (report) response.json(report);
    else
      response.status(404).json({ message: `There is no zone “${request.params.zone}”. Zones: ${REPORTS.map((r) => r.zone).join(', ')}.` });
  });
  return routes;
}
