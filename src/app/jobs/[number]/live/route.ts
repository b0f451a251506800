import { hearJob } from '@/features/job/queries';

export const dynamic = 'force-dynamic';

/** What other benches enter to this job, as they do. */
export async function GET(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  return hearJob(Number((await params).number), request.signal);
}
