import { padsOf, type Board, type Part } from '../../board';
import type { Mirroring } from '../ipc2581';

/** How one writer of the standard does what the standard leaves to it. */
export interface Style2581 {
  readonly units: 'MILLIMETER' | 'MICRON' | 'INCH';
  readonly mirroring: Mirroring;
  /** Copper layers name the pins of their pads. */
  readonly copper: boolean;
  /** Pads' shapes stand in place, in the dictionary, or in padstacks that only the copper refers to. */
  readonly shapes: 'inPlace' | 'dictionary' | 'padstack';
  readonly prefix?: string;
}

const PER_MM = { MILLIMETER: 1, MICRON: 1000, INCH: 1 / 25.4 } as const;

/** A board as a document of IPC-2581: y up, packages in frames of their own, on a sheet that begins elsewhere. */
export function ipc2581Text(board: Board, style: Style2581): string {
  const { units, mirroring, copper, shapes, prefix = '' } = style;
  const n = (mm: number): string => String(Number((mm * PER_MM[units]).toFixed(8)));
  const tag = (name: string): string => `${prefix}${name}`;
  const sized = (w: number, h: number): string => `<${tag('RectCenter')} width="${n(w)}" height="${n(h)}"/>`;
  const ids = new Map<string, string>();
  const idOf = (w: number, h: number): string => {
    const key = sized(w, h);
    ids.set(key, ids.get(key) ?? `RECT_${ids.size + 1}`);
    return ids.get(key)!;
  };
  const shapeOf = (w: number, h: number): string =>
    ({
      inPlace: sized(w, h),
      dictionary: `<${tag('StandardPrimitiveRef')} id="${idOf(w, h)}"/>`,
      padstack: '',
    })[shapes];
  /** The turn that the writer gives so that the part lies as the board has it. */
  const turnOf = (part: Part): number => {
    const counter = (360 - part.rotationDeg) % 360;
    return part.side === 'back' && mirroring === 'turnedThenMirrored' ? part.rotationDeg % 360 : counter;
  };
  const packages: string[] = [];
  const components: string[] = [];
  const nets = new Map<string, string[]>();
  const pads: string[] = [];
  for (const part of board.parts) {
    const turn = turnOf(part);
    const isBack = part.side === 'back';
    const angle = (-turn * Math.PI) / 180;
    const pins = padsOf(board, part).map((pad) => {
      const [dx, dy] = [pad.xMm - part.xMm, -(pad.yMm - part.yMm)];
      const seen = isBack && mirroring === 'turnedThenMirrored' ? -dx : dx;
      const x = seen * Math.cos(angle) - dy * Math.sin(angle);
      const y = seen * Math.sin(angle) + dy * Math.cos(angle);
      const quarter = Math.abs(Math.round(turn / 90)) % 2 === 1;
      const [w, h] = quarter ? [pad.hMm, pad.wMm] : [pad.wMm, pad.hMm];
      const net = part.pins[pad.pin];
      const pinRef = `<${tag('PinRef')} componentRef="${part.ref}" pin="${pad.pin}"/>`;
      if (net !== undefined) nets.set(net, [...(nets.get(net) ?? []), pinRef]);
      pads.push(
        `<${tag('Pad')} padstackDefRef="P_${idOf(w, h)}"><${tag('Location')} x="${n(pad.xMm + 10)}" y="${n(30 - pad.yMm)}"/>${pinRef}</${tag('Pad')}>`,
      );
      const local = isBack && mirroring === 'mirroredThenTurned' ? -x : x;
      return `<${tag('Pin')} number="${pad.pin}" type="SURFACE"><${tag('Location')} x="${n(local)}" y="${n(y)}"/>${shapeOf(w, h)}</${tag('Pin')}>`;
    });
    packages.push(`<${tag('Package')} name="PK_${part.ref}" type="OTHER">${pins.join('')}</${tag('Package')}>`);
    const mirror = isBack && mirroring !== 'notMirrored' ? ' mirror="true"' : '';
    components.push(
      `<${tag('Component')} refDes="${part.ref}" packageRef="PK_${part.ref}" part="PN_${part.ref}" layerRef="${isBack ? 'BOT' : 'TOP'}" mountType="SMT">` +
        `<${tag('Xform')} rotation="${turn}"${mirror}/><${tag('Location')} x="${n(part.xMm + 10)}" y="${n(30 - part.yMm)}"/></${tag('Component')}>`,
    );
  }
  const bill = board.parts
    .filter((p) => p.ohm !== undefined)
    .map(
      (p) =>
        `<${tag('BomItem')} OEMDesignNumberRef="PN_${p.ref}" quantity="1"><${tag('RefDes')} name="${p.ref}" packageRef="PK_${p.ref}" populate="true" layerRef="TOP"/>` +
        `<${tag('Characteristics')} category="ELECTRICAL"><${tag('Textual')} textualCharacteristicName="VALUE" textualCharacteristicValue="${p.ohm}R"/></${tag('Characteristics')}></${tag('BomItem')}>`,
    );
  const layers = board.layers.map(
    (_, i, { length }) =>
      `<${tag('Layer')} name="${i === 0 ? 'TOP' : i === length - 1 ? 'BOT' : `IN${i}`}" layerFunction="${i % 2 ? 'PLANE' : 'SIGNAL'}" side="${i === 0 ? 'TOP' : i === length - 1 ? 'BOTTOM' : 'INTERNAL'}" polarity="POSITIVE"/>`,
  );
  const corners = [...board.outlineMm, board.outlineMm[0]].map(
    ([x, y], i) => `<${tag(i === 0 ? 'PolyBegin' : 'PolyStepSegment')} x="${n(x + 10)}" y="${n(30 - y)}"/>`,
  );
  const copperLayers = copper
    ? `<${tag('LayerFeature')} layerRef="TOP"><${tag('Set')} polarity="POSITIVE">${pads.join('')}</${tag('Set')}></${tag('LayerFeature')}>`
    : '';
  const stacks = [...ids].map(
    ([shape, id]) =>
      `<${tag('PadStackDef')} name="P_${id}"><${tag('PadstackPadDef')} layerRef="TOP" padUse="REGULAR"><${tag('Location')} x="0" y="0"/>${shape}</${tag('PadstackPadDef')}></${tag('PadStackDef')}>`,
  );
  const dictionary = [...ids].map(
    ([shape, id]) => `<${tag('EntryStandard')} id="${id}">${shape}</${tag('EntryStandard')}>`,
  );
  const xmlns = prefix === '' ? 'xmlns' : `xmlns:${prefix.slice(0, -1)}`;
  return [
    `<?xml version="1.0" encoding="UTF-8"?>`,
    `<${tag('IPC-2581')} revision="C" ${xmlns}="http://webstds.ipc.org/2581">`,
    `<${tag('Content')} roleRef="Owner"><${tag('DictionaryStandard')} units="${units}">${dictionary.join('')}</${tag('DictionaryStandard')}></${tag('Content')}>`,
    `<${tag('Bom')} name="bill">${bill.join('')}</${tag('Bom')}>`,
    `<${tag('Ecad')} name="design"><${tag('CadHeader')} units="${units}"/><${tag('CadData')}>`,
    ...layers,
    `<${tag('Stackup')} name="s" overallThickness="${n(board.thicknessMm)}" tolPlus="0" tolMinus="0" whereMeasured="METAL"/>`,
    `<${tag('Step')} name="board">${stacks.join('')}`,
    `<${tag('Datum')} x="0" y="0"/><${tag('Profile')}><${tag('Polygon')}>${corners.join('')}</${tag('Polygon')}></${tag('Profile')}>`,
    ...packages,
    ...components,
    ...[...nets].map(
      ([net, pins]) =>
        `<${tag('LogicalNet')} name="${net.replaceAll('&', '&amp;')}">${pins.join('')}</${tag('LogicalNet')}>`,
    ),
    copperLayers,
    `</${tag('Step')}></${tag('CadData')}></${tag('Ecad')}></${tag('IPC-2581')}>`,
  ].join('\n');
}
