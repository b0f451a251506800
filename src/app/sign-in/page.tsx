import { redirect } from 'next/navigation';
import { SignInForm, SignedInPart } from '@/features/shop/sign-in-form';
import { loadAccounts, loadPerson } from '@/features/shop/queries';
import { Sheet, Strip } from '@/ui';

export const dynamic = 'force-dynamic';

export default async function SignInPage({ searchParams }: { searchParams: Promise<{ to?: string }> }) {
  const [{ to }, accounts, person] = await Promise.all([searchParams, loadAccounts(), loadPerson()]);
  if (!accounts) redirect('/shop');
  return (
    <Sheet strip={<Strip where="Sign-in" />}>
      {person ? (
        <SignedInPart name={person.name} role={person.role} bench={person.bench} />
      ) : (
        <SignInForm to={typeof to === 'string' ? to : '/'} />
      )}
    </Sheet>
  );
}
