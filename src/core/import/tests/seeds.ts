import { strToU8, zipSync } from 'fflate';
import { captureCsv, captureVcd, conversation, edgesOf, OFFERS_65W } from '../../usb';

/** A small good file of each kind, to be mutated: by the importer that reads it. */
export interface Seed {
  readonly importer: string;
  readonly name: string;
  readonly bytes: Uint8Array;
}

const edges = edgesOf(conversation({ trouble: 'noAnswer', offers: OFFERS_65W, want: 3, wantMa: 2000 }), {
  seed: 2,
}).slice(0, 400);
const rows = (n: number, row: (i: number) => string): string => Array.from({ length: n }, (_, i) => row(i)).join('\n');

const NETLIST = `P  UNITS CUST 0
P  NNAME1  /sheet.one/a_long_net_name
${rows(40, (i) => `327${(i % 3 === 0 ? 'GND' : i % 3 === 1 ? 'NNAME1' : 'N/C').padEnd(17)}${`U${1 + (i >> 3)}`.padEnd(6)}-${String(1 + (i & 7)).padEnd(4)}       A01X+${String(1000 * (i & 7)).padStart(6, '0')}Y+${String(1000 * (i >> 3)).padStart(6, '0')}X0200Y0200R000S2`)}
999
`;
const LAYOUT = `(kicad_pcb (version 20211014) (general (thickness 1.2)) (layers (0 "F.Cu" signal) (31 "B.Cu" signal))
(net 0 "") (net 1 "GND") (net 2 "VBUS")
${rows(12, (i) => `(footprint "lib:C" (layer "F.Cu") (at ${i} ${2 * i} ${(i % 4) * 90}) (fp_text reference "C${i}") (fp_text value "1u") (pad "1" smd rect (at -0.5 0) (size 0.5 0.6) (layers "F.Cu") (net 1 "GND")) (pad "2" smd rect (at 0.5 0) (size 0.5 0.6) (layers "F.Cu") (net 2 "VBUS")))`)}
(gr_rect (start 0 0) (end 20 30) (layer "Edge.Cuts")))`;

const DOCUMENT = `<?xml version="1.0"?><IPC-2581 revision="C"><Ecad><CadHeader units="MILLIMETER"/><CadData>
<Layer name="TOP" layerFunction="SIGNAL" side="TOP"/><Layer name="BOT" layerFunction="SIGNAL" side="BOTTOM"/>
<Step name="s"><Profile><Polygon><PolyBegin x="0" y="0"/><PolyStepSegment x="20" y="0"/><PolyStepCurve x="20" y="9" centerX="20" centerY="4.5" clockwise="false"/><PolyStepSegment x="0" y="9"/></Polygon></Profile>
<Package name="C"><Pin number="1" type="SURFACE"><Location x="-0.5" y="0"/><Circle diameter="0.4"/></Pin><Pin number="2" type="SURFACE"><Location x="0.5" y="0"/><RectCenter width="0.4" height="0.5"/></Pin></Package>
${rows(12, (i) => `<Component refDes="C${i}" packageRef="C" layerRef="TOP"><Xform rotation="${(i % 4) * 90}"/><Location x="${i}" y="${2 * i}"/></Component>`)}
<LogicalNet name="GND">${rows(12, (i) => `<PinRef componentRef="C${i}" pin="1"/>`)}</LogicalNet></Step></CadData></Ecad></IPC-2581>`;

const text = (importer: string, name: string, content: string): Seed => ({ importer, name, bytes: strToU8(content) });

export const SEEDS: readonly Seed[] = [
  text('meter', 'meter.csv', `Time (s),Voltage (V),Current (A)\n${rows(60, (i) => `${i / 10},5.02,0.${100 + i}`)}`),
  text(
    'thermocouple',
    'log.csv',
    `Time;T1 (°C);T2 (°C)\n${rows(60, (i) => `10:00:${String(i).padStart(2, '0')};${25 + i},5;${24 + i},0`)}`,
  ),
  text(
    'references',
    'good.csv',
    `board,point,value,source\n${rows(30, (i) => `heron,ohm:N${i},${1000 + i},job ${i}`)}`,
  ),
  text('capture-dump', 'capture.vcd', captureVcd(edges, 'CC1', 4e6)),
  text('capture-table', 'capture.csv', captureCsv(edges, 'CC2', 4e6)),
  {
    importer: 'capture-archive',
    name: 'capture.sr',
    bytes: zipSync({
      version: strToU8('2'),
      metadata: strToU8(
        '[device 1]\ncapturefile=logic-1\ntotal probes=2\nsamplerate=4 MHz\nprobe1=CC1\nprobe2=CC2\nunitsize=1\n',
      ),
      'logic-1-1': Uint8Array.from({ length: 4000 }, (_, i) => (i >> 3) & 1),
    }),
  },
  text('board-netlist', 'board.d356', NETLIST),
  text('board-kicad', 'board.kicad_pcb', LAYOUT),
  text('board-ipc2581', 'board.xml', DOCUMENT),
  text(
    'placement',
    'places.csv',
    `Ref,Val,Package,PosX,PosY,Rot,Side\n${rows(30, (i) => `R${i},1k,R_0402,${i}.5,${-2 * i}.25,90,top`)}`,
  ),
  text(
    'bill-of-material',
    'bom.csv',
    `Designator;Value;Quantity\n${rows(20, (i) => `"R${2 * i}, R${2 * i + 1}";1k;2`)}`,
  ),
  text(
    'firmware-hex',
    'image.hex',
    `:10010000214601360121470136007EFE09D2190140\n:100110002146017E17C20001FF5F16002148011928\n:00000001FF\n`,
  ),
  text(
    'firmware-s-records',
    'image.s19',
    'S00F000068656C6C6F202020202000003C\nS111003848656C6C6F20776F726C642E0A0042\nS5030001FB\nS9030000FC\n',
  ),
  text('firmware-text', 'image.mem', `@00000000 ${rows(20, () => 'E0 E9 A4 CE')}\n@00000100 21 29\n`),
  { importer: 'firmware-raw', name: 'dump.bin', bytes: Uint8Array.from({ length: 500 }, (_, i) => (i * 37) & 255) },
];
