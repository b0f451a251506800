import { TransformStream } from 'node:stream/web';
import {
  BenchSupply,
  Multimeter,
  SerialInstrument,
  SimulatedMultimeter,
  SimulatedSupply,
  type BenchLoad,
  type SerialPortLike,
} from '.';

describe('a simulated supply', () => {
  let load: BenchLoad = { drawA: 0.2 };
  const simulated = new SimulatedSupply(() => load);
  const supply = new BenchSupply(simulated);

  test('holds its volts for a board that draws less than the limit, and is off at first', async () => {
    await supply.set(5, 0.5);
    expect([await supply.isOn(), await supply.output()]).toEqual([false, { volts: 0, amps: 0 }]);
    await supply.switch(true);
    expect([await supply.isOn(), await supply.output()]).toEqual([true, { volts: 5, amps: 0.2 }]);
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
  expect(await meter.identify()).toBe('Unisolda,Simulated,0,1');
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
  test('answers come in pieces and in turn', async () => {
    const instrument = new SerialInstrument(
      line((q) => (q.endsWith('?') ? ['+3.3', `02E+00 ${q.length}`.slice(0, 6), '\r\n'] : [])),
    );
    await instrument.open();
    await instrument.tell('*RST');
    const both = await Promise.all([instrument.ask('MEAS:VOLT:DC?'), instrument.ask('MEAS:VOLT:DC?')]);
    expect(both).toEqual(['+3.302E+00', '+3.302E+00']);
    expect(await new Multimeter(instrument).volts()).toBeCloseTo(3.302, 9);
  });

  test('no answer and an answer that is no figure get a sentence', async () => {
    const silent = new SerialInstrument(
      line(() => []),
      30,
    );
    await silent.open();
    await expect(silent.ask('*IDN?')).rejects.toThrow('Expected an answer to *IDN? within 0.03 s; got none.');
    const odd = new SerialInstrument(line(() => ['ERR\n']));
    await odd.open();
    await expect(new Multimeter(odd).ohm()).rejects.toThrow(
      'Expected a figure for MEAS:RES?; the instrument answered “ERR”.',
    );
    await expect(new SerialInstrument(line(() => [])).tell('X')).rejects.toThrow('it is closed');
  });
});
