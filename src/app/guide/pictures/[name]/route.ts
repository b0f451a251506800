import { guidePicture } from '@/features/guide/pages';

/** A picture of the guide. */
export async function GET(_request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  const bytes = guidePicture((await params).name);
  if (!bytes) return new Response('Expected a picture of the guide.', { status: 404 });
  return new Response(bytes, { headers: { 'content-type': 'image/png', 'cache-control': 'max-age=3600' } });
}
