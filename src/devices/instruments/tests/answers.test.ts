import { TransformStream } from 'node:stream/web';
import fc from 'fast-check';
import { figureOf, outputStateOf, type Quantity } from '../answers';
import { BenchSupply } from '../bench-supply';
import { STANDARD_SUPPLY } from '../dialects';
import { LineSession } from '../line-session';
import { Multimeter } from '../multimeter';
import { openSerial, type SerialPortLike } from '../serial';
import { SimulatedMultimeter, SimulatedSupply, type BenchLoad } from '../simulated-bench';

describe('a simulated supply', () => {
  let load: BenchLoad = { drawA: 0.2 };
  const simulated = new SimulatedSupply(() => load);
  const supply = new BenchSupply(simulated);

  test('holds its volts for a board that draws less than the limit, and is off at first', async () => {
    await supply.set(5, 0.5);
    expect([await supply.state(), await supply.output()]).toEqual(['off', { volts: 0, amps: 0 }]);
    await supply.switch(true);
    expect([await supply.state(), await supply.output()]).toEqual(['on', { volts: 5, amps: 0.2 }]);
  });

  test('limits the current into a short: volts fall to what the limit makes of it (Ohm’s law)', async () => {
    load = { drawA: 0, shortOhm: 0.8 };
    const { volts, amps } = await supply.output();
    expect([volts, amps, simulated.output.limits]).toEqual([expect.closeTo(0.4, 6), 0.5, true]);
  });

  test('refuses what is no command of it', async () => {
    await expect(simulated.tell('VOLT five')).rejects.toThrow('got “VOLT five”');
    await expect(simulated.ask('MEAS:TEMP?')).rejects.toThrow('got “MEAS:TEMP?”');
  });
});

test('a simulated multimeter reads what lies under its probe within its spread; an open input is told', async () => {
  let under = { ohm: 470, volts: 3.3, dropV: 0.41 };
  const meter = new Multimeter(new SimulatedMultimeter(() => under, 4));
  expect(Math.abs((await meter.volts()) / 3.3 - 1)).toBeLessThan(0.02);
  expect(Math.abs((await meter.ohm()) / 470 - 1)).toBeLessThan(0.02);
  expect(Math.abs((await meter.dropV()) / 0.41 - 1)).toBeLessThan(0.02);
  under = { ohm: Infinity, volts: 0, dropV: Infinity };
  expect([await meter.ohm(), await meter.volts(), await meter.dropV()]).toEqual([Infinity, 0, Infinity]);
});

/** A serial line whose other end answers as it is told to, in pieces. */
function line(answers: (query: string) => readonly string[]): SerialPortLike {
  const [out, back] = [new TransformStream<Uint8Array>(), new TransformStream<Uint8Array>()];
  const writer = back.writable.getWriter();
  void (async () => {
    for await (const bytes of out.readable)
      for (const piece of answers(new TextDecoder().decode(bytes).trim()))
        void writer.write(new TextEncoder().encode(piece));
  })();
  return {
    open: async () => {},
    close: async () => {},
    readable: back.readable as unknown as ReadableStream<Uint8Array>,
    writable: out.writable as unknown as WritableStream<Uint8Array>,
  };
}

describe('a real instrument on a serial line', () => {
  const settings = STANDARD_SUPPLY.line;
  const sessionOn = async (port: SerialPortLike, answerMs = 2000): Promise<LineSession> =>
    new LineSession(await openSerial(port, { ...settings, answerMs }), { ...settings, answerMs }, { ask: '*IDN?' });

  test('answers come in pieces and in turn', async () => {
    const session = await sessionOn(
      line((q) => (q.endsWith('?') ? ['+3.3', `02E+00 ${q.length}`.slice(0, 6), '\r\n'] : [])),
    );
    await session.tell('*RST');
    const both = await Promise.all([session.ask('MEAS:VOLT:DC?'), session.ask('MEAS:VOLT:DC?')]);
    expect(both).toEqual(['+3.302E+00', '+3.302E+00']);
    expect(await new Multimeter(session).volts()).toBeCloseTo(3.302, 9);
  });

  test('no answer and an answer that is no figure get a sentence', async () => {
    const silent = await sessionOn(
      line(() => []),
      30,
    );
    await expect(silent.ask('*IDN?')).rejects.toThrow('Expected an answer to *IDN? within 0.03 s; got none.');
    const odd = await sessionOn(line(() => ['ERR\n']));
    await expect(new Multimeter(odd).ohm()).rejects.toThrow(
      'Expected a figure for MEAS:RES?; the instrument answered “ERR”.',
    );
  });

  test('a port that another page holds is a sentence', async () => {
    const held = { ...line(() => []), open: () => Promise.reject(new Error('The port is already open.')) };
    await expect(openSerial(held, settings)).rejects.toThrow('it is held by another page or program');
  });
});

describe('answers as instruments give them', () => {
  test.each<[string, Quantity, number]>([
    ['+3.302E+00', 'V', 3.302],
    ['3,302', 'V', 3.302],
    [' 4.7 kOhm ', 'Ω', 4700],
    ['1.62 Ω', 'Ω', 1.62],
    ['462 mV DC', 'drop', 0.462],
    ['0.49A', 'A', 0.49],
    ['462 MV', 'drop', 0.462],
    ['12 MOHM', 'Ω', 12e6],
    ['OL', 'Ω', Infinity],
    ['O.L', 'drop', Infinity],
    ['9.9E37', 'Ω', Infinity],
    ['+1.000000E+09', 'Ω', Infinity],
    ['2.2 MOhm', 'Ω', 2_200_000],
  ])('%j is %s %p', (answer, quantity, value) => {
    const read = figureOf(answer, 'MEAS?', quantity);
    expect(Number.isFinite(value) ? Math.abs(read / value - 1) < 1e-12 : read === value).toBe(true);
  });

  test.each<[string, Quantity, string]>([
    ['', 'V', 'Expected a figure for MEAS?'],
    ['ERR', 'Ω', 'answered “ERR”'],
    ['3.3 V', 'Ω', 'it stands in another function'],
    ['4.7 kOhm', 'V', 'it stands in another function'],
    ['OL', 'V', 'over its range'],
    ['9.9E37', 'A', 'over its range'],
    ['12 furlongs', 'V', 'a unit that is not known'],
    ['3.3.3', 'V', 'a unit that is not known'],
  ])('%j for %s is refused', (answer, quantity, words) => {
    expect(() => figureOf(answer, 'MEAS?', quantity)).toThrow(words);
  });

  test('whatever is written as a figure is read as it or refused, never as another', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -900, max: 900, noNaN: true }),
        fc.constantFrom('', ' V', ' mV', 'V'),
        (value, unit) => {
          const text = `${value.toPrecision(6)}${unit}`;
          const read = figureOf(text, 'MEAS?', 'V');
          expect(read).toBeCloseTo(Number(value.toPrecision(6)) * (unit === ' mV' ? 1e-3 : 1), 9);
        },
      ),
      { seed: 25, numRuns: 400 },
    );
  });

  test.each([
    ['1', 'on'],
    ['ON', 'on'],
    ['on', 'on'],
    ['1.0', 'on'],
    ['0', 'off'],
    ['OFF', 'off'],
    ['', 'unknown'],
    ['YES', 'unknown'],
    ['-1', 'unknown'],
    ['10', 'unknown'],
    ['0N', 'unknown'],
  ])('%j says that the output is %s', (answer, state) => {
    expect(outputStateOf(answer)).toBe(state);
  });

  test('a limit that a supply did not take is told before anything is switched on', async () => {
    const told: string[] = [];
    const deaf = {
      ask: async (q: string) => (q === 'VOLT?' ? '5.000' : '3.000'),
      tell: async (c: string) => void told.push(c),
    };
    await expect(new BenchSupply(deaf).set(5, 0.5)).rejects.toThrow('reads back 3.00 A');
    expect(told).toEqual(['VOLT 5.000', 'CURR 0.500']);
  });
});
