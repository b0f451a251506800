export {
  ARCHETYPES,
  DESIGN_LEVELS_V,
  FIRST_ANSWERS,
  MOST_PORTS,
  STACKS,
  answersSchema,
  type Answers,
  type ArchetypeId,
} from './answers';
export { carryOf, type Carry } from './carry';
export type { BoardEdit } from './board-edit';
export { applyBoardEdit } from './edit';
export { SKETCH_GRAMMAR, completeSketchLine, parseSketchLine } from './edit-lines';
export { firstBoard } from './first-board';
export { rotationByFirstPin } from './first-pin';
export { withGoodBoards } from './good-boards';
export { comparedWithGood, goodBoardsOf, parseGoodFigure, type GoodPoint } from './good-walk';
export { LAND_PATTERNS } from './packages';
export { STAND_IN_ID, standInBoard } from './stand-in';
