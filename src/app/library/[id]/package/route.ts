import { loadPackage } from '@/features/library/queries';

/** A board with its photographs and good boards, as one archive. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  const packed = await loadPackage(id);
  if (!packed.ok) return new Response(packed.problems[0].message, { status: 404 });
  return new Response(Uint8Array.from(packed.value), {
    headers: { 'Content-Type': 'application/zip', 'Content-Disposition': `attachment; filename="${id}.zip"` },
  });
}
