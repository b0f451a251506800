import { loadCsv } from '@/features/records/queries';

export async function GET(request: Request): Promise<Response> {
  const csv = await loadCsv(Object.fromEntries(new URL(request.url).searchParams));
  return new Response(csv, {
    headers: { 'content-type': 'text/csv; charset=utf-8', 'content-disposition': 'attachment; filename="records.csv"' },
  });
}
