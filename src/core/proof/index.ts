export { judgeGates, type Gate } from './gates';
export { ASSEMBLY_MINUTES, orderProofs, OWN_RISK, type FunctionTest, type ProofOrder } from './order';
export { adviseLimit } from './power-up';
export { proveRails, railWindows, type RailProof, type RailResult } from './rails';
