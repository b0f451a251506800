import { boardFile } from '@/features/library/board-file';

export async function GET(
  _: Request,
  { params }: { params: Promise<{ id: string; file: string }> },
): Promise<Response> {
  const { id, file } = await params;
  return boardFile(id, file);
}
