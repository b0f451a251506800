export { lotArrivals, type LotArrivals } from './arrivals';
export { checkStock } from './check';
export { completeStockEntry, nextId, parseStockEntry, STOCK_GRAMMAR, type StockEntry, type StockWorld } from './lines';
export {
  CONDITIONS,
  placeWords,
  stockBodySchema,
  stockId,
  type Condition,
  type Place,
  type StockBody,
  type StockEvent,
} from './events';
export {
  applyStock,
  emptyStock,
  foldStock,
  hoursOf,
  type Chip,
  type Donor,
  type Lot,
  type Origin,
  type StockState,
} from './state';
export { SERVICE_LEVEL, USE_DAYS, onHandOf, reorderPoints, type Reorder } from './use';
