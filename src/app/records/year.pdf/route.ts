import { loadYear } from '@/features/records/queries';
import { yearPdf } from '@/features/records/year-pdf';

export async function GET(request: Request): Promise<Response> {
  const asked = new URL(request.url).searchParams.get('year') ?? '';
  if (!/^\d{4}$/.test(asked))
    return Response.json({ problem: `Expected a year such as 2026; got "${asked.slice(0, 20)}".` }, { status: 400 });
  const pdf = await yearPdf(await loadYear(Number(asked)));
  return new Response(new Uint8Array(pdf), {
    headers: { 'content-type': 'application/pdf', 'content-disposition': `inline; filename="year-${asked}.pdf"` },
  });
}
