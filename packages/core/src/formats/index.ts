export { toCsv } from './csv.ts'
export { markOutCsv, materialsCsv } from './frame-csv.ts'
export { elevationSvg } from './svg.ts'
