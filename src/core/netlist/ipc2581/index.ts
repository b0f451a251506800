import { fail, ok, type Result } from '../../result';
import type { ForeignBoard, ForeignPad, ForeignPart } from '../foreign';
import { pinKey, readDocuments, type Component, type Document2581, type PackagePin } from './document';

/**
 * How a writer means a part on the back: its package is mirrored and then turned, turned and then mirrored, or drawn as it
 * is seen from the front and not mirrored at all. Writers differ.
 */
export const MIRRORINGS = ['mirroredThenTurned', 'turnedThenMirrored', 'notMirrored'] as const;
export type Mirroring = (typeof MIRRORINGS)[number];

/** A board as it was read, and what of it could be meant in more than one way. */
export interface Read2581 {
  readonly board: ForeignBoard;
  /** Parts whose pads would lie elsewhere under another {@link Mirroring}, where neither the file nor a person settles it. */
  readonly mirroringOpen: readonly string[];
  readonly steps: readonly string[];
}

export interface Settled2581 {
  readonly mirroring?: Mirroring;
  /** Which board, where the file holds several. */
  readonly step?: string;
}

/** Pads that lie this near to where a copper layer has them are the same, mm. Engineering estimate: files round to micrometres. */
const SAME_MM = 0.02;
/** A pad without a size in the file, mm. Engineering estimate: a small pad. */
const UNSIZED_MM = 0.3;

/**
 * Reads a board from a document of IPC-2581: outline, thickness, layers, components with every pad's place, nets, values.
 * Source: IPC-2581, its element and attribute names as generally written (from memory). Where copper layers name the pins
 * of their pads, those places count and show how the back is meant.
 */
export function parseIpc2581(text: string, settled: Settled2581 = {}): Result<Read2581> {
  const read = readDocuments(text);
  if (!read.ok) return read;
  const steps = read.value.map((d) => d.step);
  const document = settled.step === undefined ? read.value[0] : read.value.find((d) => d.step === settled.step);
  if (!document) return fail(`Expected one of the boards ${steps.join(', ')}; got "${settled.step}".`);
  const strange = document.components.find((c) => sideOf(document, c) === undefined);
  if (strange)
    return fail(`Expected ${strange.ref} on a layer of the top or the bottom; got "${strange.layerRef || 'none'}".`);
  const seen = MIRRORINGS.filter((mirroring) => fits(document, mirroring));
  const open = document.components.filter((c) => matters(document, c)).map((c) => c.ref);
  const isOpen = open.length > 0 && settled.mirroring === undefined && seen.length !== 1;
  const board = boardOf(document, settled.mirroring ?? seen[0] ?? MIRRORINGS[0]);
  return ok({ board, mirroringOpen: isOpen ? open : [], steps });
}

const sideOf = ({ sideOfLayer }: Document2581, { layerRef }: Component): 'front' | 'back' | undefined => {
  const side = sideOfLayer.get(layerRef);
  if (side === 'TOP') return 'front';
  return side === 'BOTTOM' ? 'back' : undefined;
};

/** A pin's place on the board, y up, under one way of mirroring. */
function pinMm(component: Component, isBack: boolean, pin: PackagePin, mirroring: Mirroring): [number, number] {
  const angle = (component.turnDeg * Math.PI) / 180;
  const mirrors = component.mirrored || isBack ? mirroring : 'notMirrored';
  const x = mirrors === 'mirroredThenTurned' ? -pin.xMm : pin.xMm;
  const [dx, dy] = [x * Math.cos(angle) - pin.yMm * Math.sin(angle), x * Math.sin(angle) + pin.yMm * Math.cos(angle)];
  return [component.xMm + (mirrors === 'turnedThenMirrored' ? -dx : dx), component.yMm + dy];
}

const pinsOf = (document: Document2581, component: Component): readonly PackagePin[] =>
  document.packages.get(component.packageRef)!;

/** Whether the pads that copper layers name lie where this way has them; also true where they name none. */
function fits(document: Document2581, mirroring: Mirroring): boolean {
  return document.components.every((component) => {
    const isBack = sideOf(document, component) === 'back';
    return pinsOf(document, component).every((pin) => {
      const pad = document.pads.get(pinKey(component.ref, pin.number));
      if (!pad) return true;
      const [x, y] = pinMm(component, isBack, pin, mirroring);
      return Math.hypot(x - pad.atMm[0], y - pad.atMm[1]) <= SAME_MM;
    });
  });
}

/** Whether a pad of it, placed by its package alone, lies elsewhere under another way. */
function matters(document: Document2581, component: Component): boolean {
  const isBack = sideOf(document, component) === 'back';
  return pinsOf(document, component).some((pin) => {
    if (document.pads.has(pinKey(component.ref, pin.number))) return false;
    const [first, ...others] = MIRRORINGS.map((mirroring) => pinMm(component, isBack, pin, mirroring));
    return others.some(([x, y]) => Math.hypot(x - first[0], y - first[1]) > SAME_MM);
  });
}

/** The board of a document: y down, from the front. */
function boardOf(document: Document2581, mirroring: Mirroring): ForeignBoard {
  const notes: string[] = [];
  let unsized = 0;
  const partOf = (component: Component): ForeignPart => {
    const side = sideOf(document, component)!;
    const quarter = Math.abs(Math.round(component.turnDeg / 90)) % 2 === 1;
    const pads = pinsOf(document, component).map((pin): ForeignPad => {
      const key = pinKey(component.ref, pin.number);
      const placed = document.pads.get(key);
      const [x, y] = placed?.atMm ?? pinMm(component, side === 'back', pin, mirroring);
      const [w, h] = pin.sizeMm ?? placed?.sizeMm ?? [UNSIZED_MM, UNSIZED_MM];
      if (!pin.sizeMm && !placed?.sizeMm) unsized += 1;
      return {
        ...{ pin: pin.number, net: document.nets.get(key), xMm: x, yMm: -y },
        ...(quarter ? { wMm: h, hMm: w } : { wMm: w, hMm: h }),
        side: pin.through ? 'both' : side,
      };
    });
    const value = document.values.get(component.ref) ?? component.part;
    // The board format counts clockwise; where the mirror comes last, it turns the sense about.
    const turnedBack = side === 'back' && mirroring === 'turnedThenMirrored';
    return {
      ref: component.ref,
      value: document.leftOff.has(component.ref) ? `${value} DNP`.trim() : value,
      footprint: component.packageRef,
      ...{ xMm: component.xMm, yMm: -component.yMm, side, pads },
      rotationDeg: ((((turnedBack ? 1 : -1) * component.turnDeg) % 360) + 360) % 360,
    };
  };
  const named = document.components.filter((c) => c.ref !== '');
  if (named.length < document.components.length)
    notes.push(`${document.components.length - named.length} components without a designator are left out.`);
  const parts = named.map(partOf);
  if (!document.outlineMm) notes.push('The file has no outline: a box round the pads is taken.');
  if (unsized > 0) notes.push(`${unsized} pads have no size in the file: ${UNSIZED_MM} mm is drawn.`);
  return {
    outlineMm: document.outlineMm?.map(([x, y]) => [x, -y]),
    thicknessMm: document.thicknessMm,
    copperLayers: document.copperLayers > 0 ? document.copperLayers : undefined,
    ...{ parts, loose: [], notes },
  };
}
