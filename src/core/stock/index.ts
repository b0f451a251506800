export { lotArrivals, type LotArrivals } from './arrivals';
export { checkStock } from './check';
export { completeStockEntry, nextId, parseStockEntry, STOCK_GRAMMAR, type StockWorld } from './lines';
export { placeWords, stockBodySchema, type Place, type StockBody, type StockEvent } from './events';
export { applyStock, emptyStock, foldStock, hoursOf, type Chip, type Donor, type StockState } from './state';
export { SERVICE_LEVEL, USE_DAYS, reorderPoints, type Reorder } from './use';
export { stockFromText, stockToStored } from './stored';
export { jobsNamedBy } from './jobs-named';
export { originLabel } from './origin';
