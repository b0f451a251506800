import { DonorsPart } from '@/features/stock/donors-part';
import { PlanPart } from '@/features/stock/plan-part';
import { loadPlan, loadShelf, loadStockWorld } from '@/features/stock/queries';
import { ShelfPart } from '@/features/stock/shelf-part';
import { StockEntry } from '@/features/stock/stock-entry';
import { StockCaution, StockSidebar } from '@/features/stock/stock-sidebar';
import { STOCK_VIEWS, stockView } from '@/features/stock/view';
import { Sheet, Strip, UnreadableNote, ViewLinks } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function StockPage({ searchParams }: { searchParams: Promise<{ view?: string }> }) {
  const view = stockView((await searchParams).view);
  const [shelf, world] = await Promise.all([loadShelf(), loadStockWorld()]);
  return (
    <Sheet
      strip={<Strip where="Stock" />}
      sidebar={<StockSidebar shelf={shelf} />}
      caution={<StockCaution />}
      entry={<StockEntry world={world} version={shelf.version} />}
    >
      <UnreadableNote rows={shelf.unreadable} />
      <ViewLinks label="Stock" current={view} views={STOCK_VIEWS} />
      {view === 'shelf' && <ShelfPart shelf={shelf} />}
      {view === 'donors' && <DonorsPart shelf={shelf} />}
      {view === 'plan' && <PlanPart view={await loadPlan()} />}
    </Sheet>
  );
}
