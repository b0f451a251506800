import { cardOf } from '@/features/heat/card';
import { heatCardPdf } from '@/features/heat/card-pdf';
import { loadGoals, loadStations } from '@/features/heat/queries';
import { loadJob } from '@/features/job/queries';

export async function GET(_request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const { number } = await params;
  const job = await loadJob(Number(number));
  if (!job)
    return Response.json({ problem: `Expected a job that exists; there is no job ${number}.` }, { status: 404 });
  const card = cardOf(job, await loadStations(), await loadGoals());
  if (!card)
    return Response.json(
      { problem: `Expected a heat plan kept with job ${number} for a station of this bench; there is none.` },
      { status: 404 },
    );
  return new Response(new Uint8Array(await heatCardPdf(card)), {
    headers: { 'content-type': 'application/pdf', 'content-disposition': `inline; filename="heat-card-${number}.pdf"` },
  });
}
