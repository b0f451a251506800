/** The database is opened before the first request is answered; the boards' tables are computed while nobody waits yet. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const [{ startBench }, { refuseLargeRequests }, { tellPersonsBy }, { PERSON_HEADER, personOfHeader }, { headers }] =
    await Promise.all([
      import('./application/start'),
      import('./application/access/large-requests'),
      import('./application/access/person'),
      import('./application/access/person-header'),
      import('next/headers'),
    ]);
  refuseLargeRequests();
  tellPersonsBy(async () => {
    const text = (await headers()).get(PERSON_HEADER);
    return text === null ? undefined : personOfHeader(text);
  });
  await startBench();
}

/** What a page or a route could not answer: for the lead, without what was asked. */
export async function onRequestError(
  error: unknown,
  _request: unknown,
  { routePath }: { readonly routePath: string },
): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { journal } = await import('./application/journal');
  journal().problem(`answering ${routePath}`, error);
}
