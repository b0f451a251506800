import { loadReport, loadReportPictures } from '@/features/close/queries';
import { reportPdf } from '@/features/close/report-pdf';

export async function GET(_request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const { number } = await params;
  const report = await loadReport(Number(number));
  if (!report)
    return Response.json({ problem: `Expected a job that exists; there is no job ${number}.` }, { status: 404 });
  const pdf = await reportPdf(report, await loadReportPictures(report));
  return new Response(new Uint8Array(pdf), {
    headers: { 'content-type': 'application/pdf', 'content-disposition': `inline; filename="job-${number}.pdf"` },
  });
}
