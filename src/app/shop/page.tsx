import { ShopSheet } from '@/features/shop/shop-sheet';
import { loadAccounts, loadShop } from '@/features/shop/queries';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function ShopPage() {
  const [shop, signedIn] = await Promise.all([loadShop(), loadAccounts()]);
  return (
    <Sheet strip={<Strip where="Shop" />}>
      <ShopSheet shop={shop} signedIn={signedIn} />
    </Sheet>
  );
}
