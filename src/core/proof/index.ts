export { judgeGates, type Gate } from './gates';
export { proveRails, railWindows, type RailFailure, type RailProof, type RailResult } from './rails';
