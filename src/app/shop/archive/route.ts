import { archiveOfShop } from '@/features/shop/queries';

/** Everything that the shop knows, as one file. */
export async function GET(): Promise<Response> {
  const { bytes, name } = await archiveOfShop();
  return new Response(bytes, {
    headers: { 'content-type': 'application/zip', 'content-disposition': `attachment; filename="${name}"` },
  });
}
