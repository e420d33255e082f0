import type { TemplateId } from '../file';
import { breeder } from './breeder';
import { counterHard } from './counterHard';
import { counterSoft } from './counterSoft';
import { espressoBar } from './espressoBar';
import { marineHousehold } from './marineHousehold';
import { marinePair } from './marinePair';
import { resinVessel } from './resinVessel';
import { skid } from './skid';
import { vanCart } from './vanCart';
import { vanTank } from './vanTank';
import { watermaker } from './watermaker';
import type { TemplateRow } from './row';

/** The ready-made trains, each in a file of its own, in the order they are offered. */
export const TEMPLATE_ROWS: Readonly<Record<TemplateId, TemplateRow>> = {
  marineHousehold,
  marinePair,
  breeder,
  vanTank,
  vanCart,
  resinVessel,
  skid,
  watermaker,
  espressoBar,
  counterSoft,
  counterHard,
};
