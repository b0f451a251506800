import { loadReport } from '@/features/close/queries';

/** The report as data, with the same words as on paper. */
export async function GET(_request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const { number } = await params;
  const report = await loadReport(Number(number));
  return report
    ? Response.json(report)
    : Response.json({ problem: `Expected a job that exists; there is no job ${number}.` }, { status: 404 });
}
