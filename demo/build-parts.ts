/** Writes the demo world's part types: pin maps follow the boards they were built for. Run with: npx tsx demo/build-parts.ts */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { landsOf, partByRef } from '../src/core/board';
import type { PartType } from '../src/core/parts';
import { demoBoard, type DEMO_BOARDS } from './files';

/** What each pin is, by the net it has on a board; the port's number is left out. Pins without a net are not connected. */
function pinsOf(boardId: (typeof DEMO_BOARDS)[number], ref: string): Record<string, string> {
  const board = demoBoard(boardId);
  const part = partByRef(board, ref)!;
  const signal = (net: string | undefined): string =>
    net === undefined ? 'NC' : net.replace(/_\d$|(?<=\D)\d(?=_F$)|(?<=^(?:ADR|GATE))\d$/g, '');
  return Object.fromEntries(landsOf(board.packages[part.package]).map(({ pin }) => [pin, signal(part.pins[pin])]));
}

const HERON = pinsOf('heronlog-4-c', 'U4');
const MARSH = pinsOf('marshdesk-2-b', 'U11');

const shared = { format: 'unisolda-part/1' as const };
const controller = {
  ...shared,
  kind: 'portController' as const,
  package: 'QFN40',
  thicknessMm: 0.85,
  supplyV: [3.0, 3.6] as [number, number],
  partner: null,
  moisture: '3' as const,
  bodyLimitC: 260,
};
const heron = { ...controller, family: 'heron-pd', imageFamily: 'heron-pd', position: 'straps' as const, pins: HERON };
const marsh = { ...controller, family: 'marsh-pd', imageFamily: 'marsh-pd3', pins: MARSH };
const heronCode = { bins: 4, positions: { main: 1, dock: 2 } };

const TYPES: PartType[] = [
  {
    ...heron,
    id: 'heron-pd-r1',
    what: 'port controller',
    revision: 'R1',
    order: 1,
    strapCode: heronCode,
    price: 6,
    leadDays: 9,
  },
  {
    ...heron,
    id: 'heron-pd-r2',
    what: 'port controller',
    revision: 'R2',
    order: 2,
    strapCode: heronCode,
    price: 9,
    leadDays: 4,
  },
  {
    ...heron,
    id: 'heron-pd-r3',
    what: 'port controller, fast role swap added',
    revision: 'R3',
    order: 3,
    strapCode: heronCode,
    pins: { ...HERON, '26': 'FRSWAP' },
    price: 10,
    leadDays: 3,
  },
  {
    ...heron,
    id: 'rill-pd-r1',
    family: 'rill-pd',
    what: 'port controller, looks alike',
    revision: 'R1',
    order: 1,
    strapCode: heronCode,
    pins: { ...HERON, '8': HERON['9'], '9': HERON['8'], '15': HERON['16'], '16': HERON['15'] },
    price: 4,
    leadDays: 2,
  },
  {
    ...marsh,
    id: 'marsh-pd-r1',
    what: 'port controller, position by straps',
    revision: 'R1',
    order: 1,
    position: 'straps',
    strapCode: { bins: 4, positions: { 'port-1': 0, 'port-2': 1, 'port-3': 2 } },
  },
  {
    ...marsh,
    id: 'marsh-pd-r2',
    what: 'port controller, eight strap bins',
    revision: 'R2',
    order: 2,
    position: 'straps',
    strapCode: { bins: 8, positions: { 'port-1': 1, 'port-2': 2, 'port-3': 5 } },
  },
  {
    ...marsh,
    id: 'marsh-pd-r3i',
    what: 'port controller, position in the image',
    revision: 'R3i',
    order: 3,
    position: 'image',
    price: 55,
    leadDays: 20,
  },
  {
    ...marsh,
    id: 'marsh-pd-r3f',
    what: 'port controller, position fused',
    revision: 'R3f',
    order: 3,
    position: 'fused',
  },
  {
    ...marsh,
    id: 'marsh-pd-r4p',
    what: 'port controller, paired with its flash',
    revision: 'R4p',
    order: 4,
    position: 'image',
    partner: 'reed-nor-1',
  },
  {
    ...shared,
    id: 'reed-nor-1',
    family: 'reed-nor',
    kind: 'flash',
    what: 'serial flash, 1 Mbit',
    revision: 'R1',
    order: 1,
    package: 'SON8',
    thicknessMm: 0.6,
    pins: pinsOf('heronlog-4-c', 'U9'),
    supplyV: [2.7, 3.6],
    position: 'none',
    imageFamily: null,
    partner: null,
    moisture: '1',
    bodyLimitC: 260,
    price: 2,
    leadDays: 2,
  },
  {
    ...shared,
    id: 'mere-chg-r1',
    family: 'mere-chg',
    kind: 'chargeController',
    what: 'charge controller, buck',
    revision: 'R1',
    order: 1,
    package: 'QFN24',
    thicknessMm: 0.75,
    pins: pinsOf('heronlog-4-c', 'U2'),
    supplyV: [2.8, 24],
    position: 'none',
    imageFamily: null,
    partner: null,
    moisture: '3',
    bodyLimitC: 260,
    price: 7,
    leadDays: 4,
  },
  {
    ...shared,
    id: 'sedge-mux-r1',
    family: 'sedge-mux',
    kind: 'mux',
    what: 'data mux',
    revision: 'R1',
    order: 1,
    package: 'QFN24',
    thicknessMm: 0.75,
    pins: pinsOf('heronlog-4-c', 'U5'),
    supplyV: [3.0, 3.6],
    position: 'none',
    imageFamily: null,
    partner: null,
    moisture: '2a',
    bodyLimitC: 260,
    price: 6,
    leadDays: 5,
  },
  {
    ...shared,
    id: 'sallow-esd-r1',
    family: 'sallow-esd',
    kind: 'esdArray',
    what: 'ESD array, three pads',
    revision: 'R1',
    order: 1,
    package: 'ESD3',
    thicknessMm: 0.4,
    pins: pinsOf('heronlog-4-c', 'D1'),
    position: 'none',
    imageFamily: null,
    partner: null,
    moisture: '1',
    bodyLimitC: 260,
    price: 0.5,
    leadDays: 2,
  },
];

writeFileSync(path.resolve('demo/parts/part-types.json'), `${JSON.stringify(TYPES, null, 1)}\n`);
