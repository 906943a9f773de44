export { checkCircuit, touching } from './check.ts';
export { kindOfRef, KINDS, type KindInfo } from './kinds.ts';
export {
  netsOf,
  parameter,
  valueOnLayer,
  withValues,
  type Circuit,
  type LayerValue,
  type Part,
  type Readout,
  type UnitDocument,
  type Want,
} from './part.ts';
export { UnionFind } from './union-find.ts';
