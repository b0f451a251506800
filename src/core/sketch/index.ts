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
export { firstBoard } from './first-board';
export { LAND_PATTERNS, landPattern, type LandPattern } from './packages';
export { carryOf, type Carry, type StageCarry, type WorthLearning } from './carry';
export { applyBoardEdit, type BoardEdit, type PartPlace } from './edit';
export { SKETCH_GRAMMAR, completeSketchLine, parseSketchLine, type SketchEntry } from './edit-lines';
