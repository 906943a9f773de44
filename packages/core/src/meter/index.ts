export { foundValue } from './found-value.ts';
export {
  judgeReading,
  severity,
  usualTolerance,
  type JudgedReading,
  type Verdict,
  type VerdictKind,
} from './verdict.ts';
