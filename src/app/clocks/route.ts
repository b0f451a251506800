import { loadSoakClocks } from '@/features/prove/queries';

export const dynamic = 'force-dynamic';

/** The clocks that run on the bench, for the strip. */
export const GET = async (): Promise<Response> => Response.json(await loadSoakClocks());
