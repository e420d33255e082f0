export { TEMPLATE_ROWS } from './rows';
export { newInstrument, systemFromTemplate } from './start';
