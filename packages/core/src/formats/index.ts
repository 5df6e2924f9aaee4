export { toCsv } from './csv.ts'
export { catalogueCsv, markOutCsv, materialsCsv, shoppingCsv } from './frame-csv.ts'
export { elevationSvg } from './svg.ts'
