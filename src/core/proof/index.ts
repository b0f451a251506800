export { judgeGates, type Gate } from './gates';
export {
  ASSEMBLY_MINUTES,
  orderProofs,
  OWN_RISK,
  type AssemblyMinutes,
  type FunctionTest,
  type OrderedTest,
  type ProofOrder,
} from './order';
export { adviseLimit, type PowerUpAdvice, type PowerUpFacts } from './power-up';
export { proveRails, railWindows, type RailFailure, type RailProof, type RailResult } from './rails';
