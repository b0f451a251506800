import { instrumentSchema, type InstrumentDefinition, type MeterDialect, type SupplyDialect } from './definition';

/** Instruments that ship as definitions. Each speaks in the style of an open standard, or is a plain line stream; none is a product's. */

const define = (input: unknown): InstrumentDefinition => instrumentSchema.parse(input);

/** One question per reading. Source: SCPI-1999, volume 2, MEASure; IEEE 488.2, *IDN? (from memory). */
const METER: MeterDialect = {
  kind: 'meter',
  identify: { ask: '*IDN?' },
  functions: {
    V: { set: [], ask: 'MEAS:VOLT:DC?', marks: [] },
    Ω: { set: [], ask: 'MEAS:RES?', marks: [] },
    drop: { set: [], ask: 'MEAS:DIOD?', marks: [] },
  },
};
export const MEASURE_METER = define({ format: 1, name: 'Meter, one question per reading', dialect: METER });

/** The function is set, asked back, and read. Source: SCPI-1999, CONFigure, SENSe:FUNCtion and READ (from memory). */
export const CONFIGURE_METER = define({
  format: 1,
  name: 'Meter, set up and then read',
  line: { baud: 115_200 },
  dialect: {
    kind: 'meter',
    identify: { ask: '*IDN?' },
    functions: {
      V: { set: ['CONF:VOLT:DC'], check: { ask: 'FUNC?', says: 'VOLT' }, ask: 'READ?' },
      Ω: { set: ['CONF:RES'], check: { ask: 'FUNC?', says: 'RES' }, ask: 'READ?' },
      drop: { set: ['CONF:DIOD'], check: { ask: 'FUNC?', says: 'DIOD' }, ask: 'READ?' },
    },
  },
});

/** A hand meter that sends what its display shows, several times a second. Common practice, no source. */
export const TALKING_METER = define({
  format: 1,
  name: 'Hand meter that sends its display',
  line: { baud: 2400, end: 'crlf' },
  dialect: {
    kind: 'meter',
    functions: {
      V: { marks: ['V DC', 'VDC', 'V'] },
      Ω: { marks: ['Ohm', 'Ω'] },
      drop: { marks: ['V Diode', 'VDiode'] },
    },
  },
});

/** Source: SCPI-1999, SOURce, OUTPut and MEASure (from memory). */
const SUPPLY: SupplyDialect = {
  kind: 'supply',
  identify: { ask: '*IDN?' },
  decimalComma: false,
  decimals: 3,
  setVolts: 'VOLT {value}',
  setLimit: 'CURR {value}',
  on: 'OUTP ON',
  off: 'OUTP OFF',
  askVolts: 'VOLT?',
  askLimit: 'CURR?',
  askState: 'OUTP?',
  onSays: ['1', 'ON'],
  offSays: ['0', 'OFF'],
  measureVolts: 'MEAS:VOLT?',
  measureAmps: 'MEAS:CURR?',
};
export const STANDARD_SUPPLY = define({ format: 1, name: 'Supply, one output', dialect: SUPPLY });

/** The same with what many cheap ones do: an echo, and a word after each command. Common practice, no source. */
export const ECHOING_SUPPLY = define({
  format: 1,
  name: 'Supply that echoes and says OK',
  line: { echo: true, acknowledge: 'OK', end: 'crlf' },
  dialect: { ...SUPPLY, onSays: ['ON'], offSays: ['OFF'] },
});

/** One line of figures per sample: seconds, volts, amperes. Common practice, no source. */
export const USB_METER_LINES = define({
  format: 1,
  name: 'USB power meter, a line per sample',
  line: { baud: 115_200 },
  dialect: { kind: 'usbMeter', columns: ['time', 'volts', 'amps'] },
});

/** One line per sample with decimal commas, up to four probes. Common practice, no source. */
export const LOGGER_LINES = define({
  format: 1,
  name: 'Thermocouple logger, a line per sample',
  dialect: {
    kind: 'logger',
    separator: ';',
    decimalComma: true,
    columns: ['time', 'celsius', 'celsius', 'celsius', 'celsius'],
  },
});

export const SHIPPED: readonly InstrumentDefinition[] = [
  MEASURE_METER,
  CONFIGURE_METER,
  TALKING_METER,
  STANDARD_SUPPLY,
  ECHOING_SUPPLY,
  USB_METER_LINES,
  LOGGER_LINES,
];
