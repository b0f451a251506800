import 'server-only';
import { Document, Page, StyleSheet, Text, View, renderToBuffer } from '@react-pdf/renderer';
import { partByRef } from '@/core/board';
import { offsetLabel, planSeconds } from '@/core/heat';
import { registerFonts } from '@/features/pdf-fonts';
import type { HeatCard } from './card';

registerFonts();

const style = StyleSheet.create({
  page: { fontFamily: 'Text', fontSize: 13, padding: 40 },
  title: { fontSize: 30, fontWeight: 700, lineHeight: 1.2 },
  line: { lineHeight: 1.4 },
  row: { flexDirection: 'row', borderBottomWidth: 0.5, paddingVertical: 7, alignItems: 'baseline' },
  head: { flexDirection: 'row', borderBottomWidth: 1, fontSize: 10, paddingTop: 16 },
  figure: { fontFamily: 'Figures', fontSize: 18, width: 92 },
  small: { fontFamily: 'Figures', fontSize: 13, width: 92 },
  words: { flex: 1 },
  part: { marginTop: 16 },
  caution: { marginTop: 'auto', borderLeftWidth: 3, paddingLeft: 8, lineHeight: 1.4 },
});

/** One page for the bench wall: what to set, when to lift, what to watch. */
export async function heatCardPdf({ job, board, station, plan, verdict }: HeatCard): Promise<Buffer> {
  let from = 0;
  const rows = plan.steps.map((step) => {
    const row = { step, from };
    from += step.durationS;
    return row;
  });
  const guards = plan.covers.map((ref) => `${ref}, ${partByRef(board, ref)?.what ?? ''}`);
  return renderToBuffer(
    <Document title={`Heat card of job ${job}`} author="Unisolda">
      <Page size="A4" style={style.page}>
        <Text
          style={style.line}
        >{`Job ${String(job).padStart(4, '0')}. ${board.device}, ${board.name} ${board.revision}`}</Text>
        <Text style={style.title}>{verdict.headline}</Text>
        <Text style={style.line}>{verdict.sentence}</Text>
        <Text style={{ ...style.line, fontWeight: 700, marginTop: 10 }}>
          {`${station.name}. Nozzle ${[`${plan.nozzleMm} mm`, offsetLabel(board, plan)].filter(Boolean).join(', ')}. Plate ${plan.plateSetC === null ? 'off' : `${plan.plateSetC} °C${plan.plateReady ? ', hot before the board goes on' : ''}`}. ${plan.alloy}.`}
        </Text>
        {guards.length > 0 ? <Text style={style.line}>{`Cover first: ${guards.join('; ')}.`}</Text> : null}
        <View style={style.head}>
          <Text style={{ width: 92 }}>from</Text>
          <Text style={{ width: 92 }}>dial</Text>
          <Text style={{ width: 92 }}>l/min</Text>
          <Text style={{ width: 92 }}>height</Text>
          <Text style={style.words}>step</Text>
        </View>
        {rows.map(({ step, from: start }) => (
          <View key={start} style={style.row}>
            <Text style={style.figure}>{`${start} s`}</Text>
            <Text style={style.figure}>{step.airSetC === null ? 'off' : `${step.airSetC}`}</Text>
            <Text style={style.small}>{step.airSetC === null ? '' : `${step.flowLpm}`}</Text>
            <Text style={style.small}>{step.airSetC === null ? '' : `${step.heightMm} mm`}</Text>
            <Text style={style.words}>{`${step.name}, ${step.durationS} s`}</Text>
          </View>
        ))}
        <Text style={style.line}>{`${planSeconds(plan)} s in all.`}</Text>
        <View style={style.part}>
          <Text style={{ fontWeight: 700 }}>What gets hottest against its limit</Text>
          {verdict.neighbours.slice(0, 5).map((n) => (
            <Text key={n.ref} style={style.line}>
              {`${n.ref}, ${n.what}: ${Math.round(n.peakC)} of ${Math.round(n.limitC)} °C at ${Math.round(n.atS)} s`}
            </Text>
          ))}
          {verdict.swimming.length > 0 ? (
            <Text
              style={style.line}
            >{`Solder melts under ${verdict.swimming.join(', ')}: do not touch or blow them.`}</Text>
          ) : null}
        </View>
        <Text style={style.caution}>
          Computed, not measured: nudge before you lift, stop when anything moves that should not. Pack out before heat,
          extraction on, local rules first.
        </Text>
      </Page>
    </Document>,
  );
}
