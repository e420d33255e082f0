export { readReport, type ReadReport, type ReportRow, type RowFate } from './recognise';
export { readSupplyReport, supplyText, supplyZonesSchema, type SupplyReport, type SupplyZone } from './supply';
