export { compareImages, type RegionDifference } from './compare';
export { crc32 } from './crc32';
export { signsOf, type ImageSign } from './evidence';
export { imageFamilySchema, parseImageFamily, type ImageFamily, type Region } from './family';
export { sha256Hex } from './hash';
export { hex, hex32, judgeImage, type ImageVerdict } from './judge';
export { mergeImages, positionConflict, proposeRules, type MergedImage, type MergeRules, type Source } from './merge';
export { overviewOf, type Stretch } from './overview';
export { entropyBits, proposeMap, type ProposedStretch, type StretchKind } from './propose';
