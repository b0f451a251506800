export { alignImages, type AlignedStretch } from './align';
export { compareImages, type RegionDifference } from './compare';
export { crc32 } from './crc32';
export { signsOf } from './evidence';
export { nextDifference, compareAll, stretchAt, type SeenTogether } from './compare-all';
export {
  fieldsOf,
  imageFamilySchema,
  parseImageFamily,
  REGION_MEANINGS,
  type ImageFamily,
  type Region,
} from './family';
export { sha256Hex, sha256OfText } from './hash';
export { computedSum, judgeImage, sumHex, type ImageVerdict } from './judge';
export {
  copiesOf,
  IDENTITY_REASONS,
  mergeImages,
  positionConflict,
  transplantWords,
  type IdentityReason,
  type Source,
  type Sources,
  type Transplant,
} from './merge';
export { overviewOf, type OverviewCell, type Texture } from './overview';
export { proposeTransplant, type Decided, type ProposedTransplant } from './propose-transplant';
export { entropyBits, proposeMap, type ProposedStretch, type StretchKind } from './propose';
export { slotPosition } from './slot-position';
