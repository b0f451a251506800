import { fail, ok, type Result } from '../../result';
import { childOf, childrenOf, eachElement, figureOf, type Element } from './elements';
import { cornersOf, mmPer, sizeOf, type SizeMm } from './shapes';

/** A pin of a package, in the package's own frame: y up, mm. */
export interface PackagePin {
  readonly number: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly through: boolean;
  readonly sizeMm?: SizeMm;
}

export interface Component {
  readonly ref: string;
  readonly packageRef: string;
  readonly part: string;
  readonly layerRef: string;
  readonly xMm: number;
  readonly yMm: number;
  /** Counter-clockwise, seen from the front. */
  readonly turnDeg: number;
  readonly mirrored: boolean;
}

/** What is taken of one document of IPC-2581: y up, mm. */
export interface Document2581 {
  /** Name of the step, the board, that is read. */
  readonly step: string;
  readonly outlineMm?: readonly (readonly [number, number])[];
  readonly thicknessMm?: number;
  readonly copperLayers: number;
  readonly sideOfLayer: ReadonlyMap<string, string>;
  readonly packages: ReadonlyMap<string, readonly PackagePin[]>;
  readonly components: readonly Component[];
  /** Net by `part pin`. */
  readonly nets: ReadonlyMap<string, string>;
  /** Where the pads themselves stand and how large they are, by `part pin`, where the copper layers say so. */
  readonly pads: ReadonlyMap<string, { readonly atMm: readonly [number, number]; readonly sizeMm?: SizeMm }>;
  /** Value by part, and whether it is left off. */
  readonly values: ReadonlyMap<string, string>;
  readonly leftOff: ReadonlySet<string>;
}

const WANTED = new Set([
  ...['DictionaryStandard', 'DictionaryUser', 'CadHeader', 'Layer', 'Stackup', 'BomItem'],
  ...['Profile', 'PadStackDef', 'Package', 'Component', 'LogicalNet', 'Set'],
]);
/** Functions of layers that carry copper. Source: IPC-2581, layer functions. */
const COPPER = new Set(['CONDUCTOR', 'SIGNAL', 'PLANE', 'MIXED']);
const MOST_COMPONENTS = 20_000;

export const pinKey = (ref: string, pin: string): string => `${ref} ${pin}`;

/** What belongs to one step. */
class Step {
  outline: readonly (readonly [number, number])[] = [];
  readonly packages = new Map<string, Element>();
  readonly padstacks = new Map<string, Element>();
  readonly components: Element[] = [];
  readonly nets = new Map<string, string>();
  readonly pads = new Map<string, { readonly at: readonly [number, number]; readonly padstack: string }>();
}

/** Reads the elements of a document; what its unit is, it says only on the way. */
class Reading {
  unit: string | undefined;
  readonly shapes = new Map<string, SizeMm>();
  readonly sides = new Map<string, string>();
  readonly values = new Map<string, string>();
  readonly leftOff = new Set<string>();
  readonly steps = new Map<string, Step>();
  copperLayers = 0;
  thickness = NaN;

  /** @param stepName the step that it stands in; empty where it stands in none. */
  take(element: Element, stepName: string): void {
    const { name, attributes } = element;
    const step = this.steps.get(stepName) ?? new Step();
    this.steps.set(stepName, step);
    switch (name) {
      case 'DictionaryStandard':
      case 'DictionaryUser':
        return this.takeShapes(element);
      case 'CadHeader':
        this.unit = attributes.units;
        return;
      case 'Layer':
        if (COPPER.has(attributes.layerFunction)) this.copperLayers += 1;
        this.sides.set(attributes.name, attributes.side ?? '');
        return;
      case 'Stackup':
        this.thickness = figureOf(element, 'overallThickness');
        return;
      case 'BomItem':
        return this.takeBill(element);
      case 'Profile':
        step.outline = childrenOf(element, 'Polygon').flatMap(cornersOf);
        return;
      case 'PadStackDef':
        step.padstacks.set(attributes.name, element);
        return;
      case 'Package':
        step.packages.set(attributes.name, element);
        return;
      case 'Component':
        step.components.push(element);
        return;
      case 'LogicalNet':
        for (const pin of childrenOf(element, 'PinRef'))
          step.nets.set(pinKey(pin.attributes.componentRef, pin.attributes.pin), attributes.name);
        return;
      case 'Set':
        for (const pad of childrenOf(element, 'Pad')) takePad(step, pad, attributes.net);
    }
  }

  private takeShapes(dictionary: Element): void {
    const mm = mmPer(dictionary.attributes.units) ?? NaN;
    for (const entry of dictionary.children) {
      const [shape] = entry.children;
      const size = shape && sizeOf(shape);
      if (size) this.shapes.set(entry.attributes.id, [size[0] * mm, size[1] * mm]);
    }
  }

  /** Value and population of the parts that a line of the bill names. */
  private takeBill(item: Element): void {
    const rows = childrenOf(item, 'Characteristics').flatMap((c) => c.children);
    const named = (attribute: string): Element | undefined =>
      rows.find((r) => /^(?:value|val)$/i.test(r.attributes[attribute] ?? ''));
    const text = named('textualCharacteristicName')?.attributes.textualCharacteristicValue;
    const measured = named('measuredCharacteristicName')?.attributes;
    const value =
      text ??
      (measured && `${measured.measuredCharacteristicValue ?? ''}${measured.engineeringUnitOfMeasure ?? ''}`) ??
      item.attributes.OEMDesignNumberRef ??
      '';
    for (const { attributes } of childrenOf(item, 'RefDes')) {
      this.values.set(attributes.name, value);
      if (attributes.populate === 'false') this.leftOff.add(attributes.name);
    }
  }
}

/** Where a pad of a part stands on the board, and its net where only its copper says it. */
function takePad(step: Step, pad: Element, net: string | undefined): void {
  const place = childOf(pad, 'Location');
  const at = [figureOf(place, 'x'), figureOf(place, 'y')] as const;
  for (const { attributes } of childrenOf(pad, 'PinRef')) {
    const key = pinKey(attributes.componentRef, attributes.pin);
    if (Number.isFinite(at[0] + at[1])) step.pads.set(key, { at, padstack: pad.attributes.padstackDefRef ?? '' });
    if (net !== undefined && net !== '' && !step.nets.has(key)) step.nets.set(key, net);
  }
}

/** What a document of IPC-2581 holds that a repair needs: one of them for each step with components. */
export function readDocuments(text: string): Result<Document2581[]> {
  const reading = new Reading();
  const gone = eachElement(text, WANTED, (element, within) =>
    reading.take(element, within.find((e) => e.name === 'Step')?.attributes.name ?? ''),
  );
  if (!gone.ok) return gone;
  const mm = mmPer(reading.unit);
  if (mm === undefined) return fail(`Expected a unit of MILLIMETER, MICRON or INCH; got "${reading.unit ?? 'none'}".`);
  const documents: Document2581[] = [];
  for (const [name, step] of reading.steps) {
    if (step.components.length === 0) continue;
    const made = documentOf(name, step, reading, mm);
    if (!made.ok) return made;
    documents.push(made.value);
  }
  return documents.length > 0 ? ok(documents) : fail('Expected a board with components; got none.');
}

function documentOf(name: string, step: Step, reading: Reading, mm: number): Result<Document2581> {
  if (step.components.length > MOST_COMPONENTS)
    return fail(`Expected at most ${MOST_COMPONENTS} components; got ${step.components.length}.`);
  const components: Component[] = [];
  for (const element of step.components) {
    const { attributes } = element;
    const [place, turn] = [childOf(element, 'Location'), childOf(element, 'Xform')];
    const [x, y] = [figureOf(place, 'x'), figureOf(place, 'y')];
    if (!Number.isFinite(x + y)) return fail(`Expected a place of ${attributes.refDes}; got none that can be read.`);
    if (!step.packages.has(attributes.packageRef))
      return fail(`Expected the package of ${attributes.refDes} in the file; "${attributes.packageRef}" is not there.`);
    components.push({
      ...{ ref: attributes.refDes ?? '', packageRef: attributes.packageRef, layerRef: attributes.layerRef ?? '' },
      ...{ part: attributes.part ?? '', xMm: x * mm, yMm: y * mm, turnDeg: figureOf(turn, 'rotation') || 0 },
      mirrored: turn?.attributes.mirror === 'true',
    });
  }
  const stacks = new Map([...step.padstacks].map(([id, stack]) => [id, stackSize(stack, reading, mm)]));
  const sizeOfStack = (id: string): SizeMm | undefined => stacks.get(id);
  const placed = (at: readonly [number, number]): [number, number] => [at[0] * mm, at[1] * mm];
  return ok({
    step: name,
    outlineMm: step.outline.length > 2 ? step.outline.map(placed) : undefined,
    thicknessMm: reading.thickness > 0 ? reading.thickness * mm : undefined,
    copperLayers: reading.copperLayers,
    sideOfLayer: reading.sides,
    packages: new Map([...step.packages].map(([id, p]) => [id, pinsOf(p, reading, mm)])),
    components,
    nets: step.nets,
    pads: new Map(
      [...step.pads].map(([key, pad]) => [key, { atMm: placed(pad.at), sizeMm: sizeOfStack(pad.padstack) }]),
    ),
    ...{ values: reading.values, leftOff: reading.leftOff },
  });
}

function pinsOf(package_: Element, reading: Reading, mm: number): PackagePin[] {
  return childrenOf(package_, 'Pin').map((pin) => {
    const place = childOf(pin, 'Location');
    const inPlace = sizeIn(pin, reading, mm);
    return {
      number: pin.attributes.number ?? '',
      xMm: (figureOf(place, 'x') || 0) * mm,
      yMm: (figureOf(place, 'y') || 0) * mm,
      through: pin.attributes.type === 'THRU',
      ...(inPlace && { sizeMm: turned(inPlace, figureOf(childOf(pin, 'Xform'), 'rotation')) }),
    };
  });
}

/** The size of a padstack's pad: the largest of its layers', as the outer ones are. */
function stackSize(stack: Element, reading: Reading, mm: number): SizeMm | undefined {
  const sizes = childrenOf(stack, 'PadstackPadDef').flatMap((pad) => {
    const isCopper = pad.attributes.padUse === undefined || pad.attributes.padUse === 'REGULAR';
    const size = isCopper ? sizeIn(pad, reading, mm) : undefined;
    return size ? [size] : [];
  });
  return sizes.reduce<SizeMm | undefined>((a, b) => (a && a[0] * a[1] >= b[0] * b[1] ? a : b), undefined);
}

/** The size of a shape that stands in an element, or that it refers to, mm. */
function sizeIn(element: Element, { shapes }: Reading, mm: number): SizeMm | undefined {
  for (const child of element.children) {
    const referred = shapes.get(child.attributes.id ?? '');
    if (referred && /^(?:Standard|User)PrimitiveRef$/.test(child.name)) return referred;
    const size = child.name === 'Location' || child.name === 'Xform' ? undefined : sizeOf(child);
    if (size) return [size[0] * mm, size[1] * mm];
  }
  return undefined;
}

const turned = ([w, h]: SizeMm, deg: number): SizeMm =>
  Math.abs(Math.round((deg || 0) / 90)) % 2 === 1 ? [h, w] : [w, h];
