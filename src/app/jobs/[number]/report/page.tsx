import { notFound } from 'next/navigation';
import { loadReport } from '@/features/close/queries';
import { ReportSheet } from '@/features/close/report-sheet';

export default async function ReportPage({ params }: { params: Promise<{ number: string }> }) {
  const report = await loadReport(Number((await params).number));
  if (!report) notFound();
  return <ReportSheet report={report} />;
}
