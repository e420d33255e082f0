export { readReport, type ReadReport, type ReportRow, type RowFate } from './recognise';
export { LONGEST_REPORT_TEXT, reportSchema, type ReportValue } from './schema';
export { readSupplyReport, supplyText, supplyZonesSchema, type SupplyReport, type SupplyZone } from './supply';
