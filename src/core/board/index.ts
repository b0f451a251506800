export { CHIP_KINDS, behindNet, type Behind } from './behind';
export { bodyBox, bodyOutline, landsOf, padsOf, toBoard, type Pad } from './lands';
export { parseBoard, parseBoardText } from './parse';
export {
  findPlace,
  groundNet,
  handiestPlace,
  isStandIn,
  isTwoTerminal,
  memoriesOf,
  named,
  netNamed,
  outlineBox,
  partByRef,
  partNamed,
  pinNamed,
  portPin,
  railOfNet,
  shieldOver,
  type ProbePlace,
} from './query';
export { boardSvg } from './svg';
export {
  ASSEMBLY_STATES,
  PART_KINDS,
  PART_KIND_WORDS,
  boardSchema,
  boardThing,
  refText,
  type AssemblyState,
  type Assumption,
  type Board,
  type BoardFunction,
  type Part,
  type PartKind,
  type PartPackage,
  type PlugSide,
  type Port,
  type Rail,
  type Shield,
  type Slot,
  type Side,
} from './schema';
export { photoPlaceSchema, type PhotoPlace } from './photo-place';
