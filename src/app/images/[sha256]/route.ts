import { loadImageBytes } from '@/features/image/queries';

/** The bytes of a kept image, as they are. */
export async function GET(_request: Request, { params }: { params: Promise<{ sha256: string }> }): Promise<Response> {
  const { sha256 } = await params;
  const bytes = await loadImageBytes(sha256);
  if (!bytes)
    return Response.json({ problem: `Expected the SHA-256 of a kept image; got ${sha256}.` }, { status: 404 });
  return new Response(bytes, {
    headers: {
      'content-type': 'application/octet-stream',
      'content-disposition': `attachment; filename="${sha256.slice(0, 16)}.bin"`,
      'cache-control': 'private, max-age=31536000, immutable',
    },
  });
}
