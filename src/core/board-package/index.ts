export { openPackage, packBoard, packageManifestSchema, type BoardPackage } from './archive';
export { boardDifferences, mergeBoard, type BoardDifference } from './differences';
