import { referenceFile } from '@/features/library/reference-file';

export const GET = async (_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  referenceFile((await params).id);
