import { notFound } from 'next/navigation';
import { loadReport } from '@/features/close/queries';
import { ReportSheet } from '@/features/close/report-sheet';

export default async function ReportPage({
  params,
  searchParams,
}: {
  params: Promise<{ number: string }>;
  searchParams: Promise<Record<string, string | undefined>>;
}) {
  const report = await loadReport(Number((await params).number), (await searchParams).private === '1');
  if (!report) notFound();
  return <ReportSheet report={report} />;
}
