export { delimiterOf, readCsv, writeCsv } from './csv.ts';
export { isSame } from './same.ts';
export { whyNotKept } from './why-not-kept.ts';
