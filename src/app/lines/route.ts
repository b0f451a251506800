import { answerLine } from '@/features/instruments/queries';

export const dynamic = 'force-dynamic';

/** A line to an instrument on the network: opened here, its bytes are the answer; text is sent by a second call. */
export const POST = (request: Request): Promise<Response> => answerLine(request);
