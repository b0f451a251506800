/** Kinds of measurements as they were called before readings and settings had versions, and the field's terms that they have now. */
const KIND_TERMS: Readonly<Record<string, string>> = {
  usb: 'usbMeter',
  shape: 'meterPattern',
  talk: 'pdNegotiation',
  tester: 'portTester',
  swap: 'knownGoodSwap',
  look: 'visualInspection',
  pin: 'contactDrop',
  joint: 'jointDrop',
  drop: 'diodeDrop',
  ohm: 'groundResistance',
  through: 'seriesResistance',
  volts: 'railVoltage',
  works: 'functionTest',
  image: 'imageCheck',
  lift: 'liftedResistance',
};

/** The term of a kind; a name that is none of the old ones stays as it is, for the schema to refuse. */
export const measurementTerm = (kind: string): string => KIND_TERMS[kind] ?? kind;
