import 'server-only';
import { Document, Page, StyleSheet, Text, View, renderToBuffer } from '@react-pdf/renderer';
import { registerFonts } from '@/features/pdf-fonts';
import type { Records, YearOfRecords } from './queries';

registerFonts();

const style = StyleSheet.create({
  page: { fontFamily: 'Text', fontSize: 9, paddingVertical: 34, paddingHorizontal: 42 },
  title: { fontSize: 17, fontWeight: 700, lineHeight: 1.3 },
  part: { marginTop: 12 },
  partTitle: { fontWeight: 700, borderBottomWidth: 0.5, marginBottom: 2 },
  row: { flexDirection: 'row' },
  name: { flex: 2.2, fontSize: 9, lineHeight: 1.5 },
  cell: { flex: 1, fontFamily: 'Figures', fontSize: 8, lineHeight: 1.5, textAlign: 'right' },
});

const HEADS = ['jobs', 'repaired', 'may be, %', 'came back', 'minutes', 'paid', 'promises'];

/** The year of the shop on a sheet: by month, board, what was mended and person. */
export async function yearPdf({ year, boards, causes, months, people }: YearOfRecords): Promise<Buffer> {
  const { all } = boards;
  return renderToBuffer(
    <Document title={`The year ${year}`}>
      <Page size="A4" style={style.page}>
        <Text style={style.title}>{`The year ${year}`}</Text>
        <Text>
          {all
            ? `${all.jobs} jobs closed, ${all.repaired} repaired, ${all.cameBack} came back.`
            : 'No job was closed in this year.'}
        </Text>
        <Part title="By month" records={months} />
        <Part title="By board" records={boards} />
        <Part title="By what was mended" records={causes} />
        <Part title="By person" records={people} />
        <Text style={{ marginTop: 12, fontSize: 8 }}>
          Ranges hold the true share with 95 %. A row in brackets has too few jobs to say anything by.
        </Text>
      </Page>
    </Document>,
  );
}

/** Rows on the sheet for each part; the rest is in the table on the screen. */
const MOST_ROWS = 14;

const Part = ({ title, records: { rows } }: { title: string; records: Records }) => (
  <View style={style.part} wrap={false}>
    <View style={{ ...style.row, ...style.partTitle }}>
      <Text style={style.name}>{title}</Text>
      {HEADS.map((h) => (
        <Text key={h} style={style.cell}>
          {h}
        </Text>
      ))}
    </View>
    {rows.slice(0, MOST_ROWS).map((r) => (
      <View key={r.name} style={style.row}>
        <Text style={style.name}>{r.isThin ? `(${r.name})` : r.name}</Text>
        {[
          r.jobs,
          r.repaired,
          `${Math.round(100 * r.cure.low)}–${Math.round(100 * r.cure.high)}`,
          r.cameBack,
          Math.round(r.minutes),
          r.money === undefined ? '–' : Math.round(r.money),
          r.promised === 0 ? '–' : `${r.kept} of ${r.promised}`,
        ].map((cell, i) => (
          <Text key={HEADS[i]} style={style.cell}>
            {String(cell)}
          </Text>
        ))}
      </View>
    ))}
  </View>
);
