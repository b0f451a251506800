import 'server-only';
import { Document, Image, Page, Path, StyleSheet, Svg, Text, View, renderToBuffer } from '@react-pdf/renderer';
import type { JobReport } from '@/core/job';
import { traceFigures } from './trace-figure';
import { registerFonts } from '@/features/pdf-fonts';

registerFonts();

const style = StyleSheet.create({
  page: { fontFamily: 'Text', fontSize: 9, paddingVertical: 34, paddingHorizontal: 42 },
  title: { fontSize: 17, fontWeight: 700, lineHeight: 1.3 },
  outcome: { fontSize: 13, fontWeight: 700, lineHeight: 1.4, marginTop: 8 },
  part: { marginTop: 9 },
  partTitle: { fontWeight: 700, borderBottomWidth: 0.5, marginBottom: 2 },
  // A line's height counts from the size that stands beside it: without one it is that of 18 points.
  row: { flexDirection: 'row' },
  line: { fontSize: 9, lineHeight: 1.4 },
  cell: { flex: 1, fontFamily: 'Figures', fontSize: 8, lineHeight: 1.5, paddingRight: 6 },
  first: { flex: 1.2, fontSize: 9, lineHeight: 1.35, paddingRight: 6 },
});

/** The shipped font has no Greek letters: ohms are written out. */
const plain = (text: string): string => text.replace(/k\u03a9/g, 'kohm').replace(/\u03a9/g, 'ohm');

/** The report as a PDF of one page. */
export async function reportPdf(report: JobReport, pictures: ReadonlyMap<string, Buffer> = new Map()): Promise<Buffer> {
  return renderToBuffer(
    <Document title={report.title} author={report.shop}>
      <Page size="A4" style={style.page}>
        {report.training ? (
          <Text style={{ fontWeight: 700, borderWidth: 1.5, padding: 4, marginBottom: 6 }}>
            TRAINING: a job to learn on, with simulated values. No repair of a real device.
          </Text>
        ) : null}
        <View style={{ ...style.row, justifyContent: 'space-between', borderBottomWidth: 1 }}>
          <Text style={style.title}>{report.title}</Text>
          <Text style={{ fontWeight: 700 }}>{report.shop}</Text>
        </View>
        <Text style={style.outcome}>
          {report.outcome}
          {report.closed ? `, ${report.closed}` : ''}
        </Text>
        <Text style={style.line}>{`${report.device}. Opened ${report.opened}.`}</Text>
        <Text style={style.line}>{`Symptom: ${plain(report.symptom)}`}</Text>
        <Text style={style.line}>{`Cause: ${plain(report.cause)}`}</Text>
        {report.reason ? (
          <Text style={{ fontWeight: 700 }}>{`Closed with gates not met, because: ${plain(report.reason)}`}</Text>
        ) : null}
        {report.past.map((line) => (
          <Text key={line} style={style.line}>
            {line}
          </Text>
        ))}
        <Part title="What was found" rows={report.findings.map((f) => [f.stage, plain(f.words)])} wide />
        <Part title="What was done" rows={report.work.map((w) => [plain(w)])} />
        {report.parts.length > 0 ? (
          <Part title="Parts used" rows={report.parts.map((p) => [plain(p.what), p.from])} />
        ) : null}
        {report.bill.length > 0 ? (
          <Part title="Work and price" rows={report.bill.map((b) => [b.what, b.figure])} />
        ) : null}
        <Part
          title="Rails: wanted, before, now"
          rows={report.rails.map((r) => [r.rail, r.wanted, r.before, r.now, r.state])}
        />
        <Part title="Plug ways: before, now" rows={report.plugs.map((p) => [p.way, p.before, p.now])} />
        {report.traces.length > 0 ? <Traces traces={report.traces} /> : null}
        <Part title="Functions" rows={report.functions.map((f) => [f.what, f.state])} />
        <Part title="Gates" rows={report.gates.map((g) => [g.words, g.state])} wide />
        {report.pictures.map(({ sha256, words }) => {
          const data = pictures.get(sha256);
          return data ? (
            <View key={sha256} style={style.part} wrap={false}>
              {/* eslint-disable-next-line jsx-a11y/alt-text -- a PDF's image has none */}
              <Image src={{ data, format: 'jpg' }} style={{ maxHeight: 260, objectFit: 'contain' }} />
              <Text style={style.line}>{plain(words)}</Text>
            </View>
          ) : null;
        })}
        {report.origins ? <Text style={style.line}>{plain(report.origins)}</Text> : null}
        {report.seal ? <Text style={style.line}>{`Seal of the record: ${report.seal}`}</Text> : null}
        {report.closing ? <Text style={{ ...style.line, marginTop: 10 }}>{plain(report.closing)}</Text> : null}
      </Page>
    </Document>,
  );
}

/** Dashes tell the second way from the first where the print has no colour. */
const DASHES = [undefined, '4 2'] as const;

function Traces({ traces }: { traces: JobReport['traces'] }) {
  return (
    <View style={{ flexDirection: 'row', marginTop: 4 }} wrap={false}>
      {traceFigures(traces).map(({ title, width, height, maxA, endS, lines }) => (
        <View key={title} style={{ flex: 1, paddingRight: 12 }}>
          <Svg viewBox={`0 0 ${width} ${height}`} style={{ height: 52 }} preserveAspectRatio="none">
            <Path d={`M0 0V${height}H${width}`} stroke="black" strokeWidth={0.8} fill="none" />
            {lines.map((line, i) => (
              <Path
                key={line.way}
                d={line.d}
                stroke="black"
                strokeWidth={1}
                strokeDasharray={DASHES[i % 2]}
                fill="none"
              />
            ))}
          </Svg>
          <Text style={{ ...style.line, fontSize: 7.5 }}>
            {`${title}: ${lines.map((line, i) => `${line.way}${i % 2 === 1 ? ' (dashed)' : ''}`).join(', ')}; ${maxA.toFixed(2)} A high, ${Math.round(endS)} s long`}
          </Text>
        </View>
      ))}
    </View>
  );
}

function Part({ title, rows, wide = false }: { title: string; rows: readonly (readonly string[])[]; wide?: boolean }) {
  return (
    <View style={style.part}>
      <Text style={style.partTitle}>{title}</Text>
      {rows.map((row) => (
        <View key={row.join('|')} style={style.row}>
          {row.map((cell, i) => (
            <Text key={i} style={i === 0 ? { ...style.first, flex: wide ? 0.35 : style.first.flex } : style.cell}>
              {cell}
            </Text>
          ))}
        </View>
      ))}
    </View>
  );
}
