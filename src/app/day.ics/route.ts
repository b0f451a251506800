import { loadCalendar } from '@/features/day/queries';

export const dynamic = 'force-dynamic';

/** Promises and ends of soaks, for a calendar that asks for them again and again. */
export const GET = async (): Promise<Response> =>
  new Response(await loadCalendar(), {
    headers: {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': 'inline; filename="unisolda.ics"',
    },
  });
