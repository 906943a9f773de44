export { delimiterOf, readCsv, writeCsv } from './csv.ts';
export { whyNotKept } from './why-not-kept.ts';
