import { loadPicture } from '@/features/balls/queries';

/** A kept picture, to be looked at; only what is a PNG or a JPEG by its first bytes. */
export async function GET(_request: Request, { params }: { params: Promise<{ sha256: string }> }): Promise<Response> {
  const { sha256 } = await params;
  const picture = await loadPicture(sha256);
  if (!picture)
    return Response.json({ problem: `Expected the SHA-256 of a kept picture; got ${sha256}.` }, { status: 404 });
  return new Response(picture.bytes, {
    headers: {
      'content-type': picture.type,
      'x-content-type-options': 'nosniff',
      'cache-control': 'private, max-age=31536000, immutable',
    },
  });
}
