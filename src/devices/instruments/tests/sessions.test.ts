import { openLine, writeLine } from '../../../application/instruments/lines';
import { seededRandom } from '../../../core/math';
import { InstrumentProblem } from '../answers';
import { Bench } from '../bench';
import { BenchSupply } from '../bench-supply';
import type { InstrumentDefinition, MeterDialect, SupplyDialect } from '../definition';
import { CONFIGURE_METER, ECHOING_SUPPLY, MEASURE_METER, SHIPPED, STANDARD_SUPPLY, TALKING_METER } from '../dialects';
import { LineSession, type LineTransport } from '../line-session';
import { Multimeter, type MeterQuantity } from '../multimeter';
import { CALM, pick, Speaker, troubledLine, type Trouble } from './speaker';
import { servedOverTcp } from './tcp-speaker';

/** Short limits, so that silence costs little; what is measured is the same. */
const quick = (d: InstrumentDefinition, answerMs = 25): InstrumentDefinition => ({
  ...d,
  line: { ...d.line, answerMs },
});
const METERS = [MEASURE_METER, CONFIGURE_METER, TALKING_METER];
const SUPPLIES = [STANDARD_SUPPLY, ECHOING_SUPPLY];
const QUANTITIES: readonly MeterQuantity[] = ['V', 'Ω', 'drop'];

interface Tally {
  right: number;
  refused: number;
  readonly wrong: string[];
}

/** Takes a step; an InstrumentProblem is a refusal, anything else that is thrown fails the test. */
async function attempt(tally: Tally, step: () => Promise<string | undefined>): Promise<void> {
  try {
    const wrong = await step();
    if (wrong === undefined) tally.right++;
    else tally.wrong.push(wrong);
  } catch (error) {
    if (!(error instanceof InstrumentProblem) && (error as Error).message !== 'closed') throw error;
    tally.refused++;
  }
}

async function meterSession(seed: number, trouble: Trouble, tally: Tally): Promise<void> {
  const random = seededRandom(seed);
  const definition = quick(pick(random, METERS));
  const truth = {
    V: pick(random, [3.3, 0.402, 19.8]),
    Ω: pick(random, [1.62, 470, 22_400, Infinity]),
    drop: pick(random, [0.462, 0.21, Infinity]),
  };
  const speaker = new Speaker(definition, truth, 'Bench,Meter,17,1', pick(random, ['plain', 'unit', 'comma'] as const));
  const dialect = definition.dialect as MeterDialect;
  const line = troubledLine(speaker, trouble, random);
  const session = new LineSession(line, definition.line, dialect.identify);
  const meter = new Multimeter(session, dialect);
  await attempt(tally, async () => void (await session.open()));
  for (let k = 0; k < 4; k++) {
    const quantity = pick(random, QUANTITIES);
    // Somebody turns the dial of the meter now and then.
    if (random() < 0.5) speaker.function = pick(random, QUANTITIES);
    await attempt(tally, async () => {
      const value = await meter.settled(quantity);
      const want = truth[quantity];
      const right = value === want || Math.abs(value / want - 1) < 0.016;
      return right ? undefined : `${definition.name}: ${quantity} ${value}, is ${want} (seed ${seed})`;
    });
  }
  await session.close();
}

async function supplySession(seed: number, trouble: Trouble, tally: Tally): Promise<void> {
  const random = seededRandom(seed);
  const definition = quick(pick(random, SUPPLIES));
  const speaker = new Speaker(definition, { V: 5, Ω: 0, drop: 0 }, 'Bench,Supply,3,1');
  const dialect = definition.dialect as SupplyDialect;
  const session = new LineSession(troubledLine(speaker, trouble, random), definition.line, dialect.identify);
  const supply = new BenchSupply(session, dialect);
  await attempt(tally, async () => void (await session.open()));
  for (let k = 0; k < 3; k++)
    await attempt(tally, async () => {
      speaker.isOn = random() < 0.5;
      const state = await supply.state();
      const really = speaker.isOn ? 'on' : 'off';
      // On and off mixed up is what must not be; not knowing is safe.
      return state === 'unknown' || state === really ? undefined : `${state}, is ${really} (seed ${seed})`;
    });
  await attempt(tally, async () => {
    await supply.set(5, 0.5);
    return Math.abs(speaker.limit - 0.5) < 0.02 ? undefined : `limit ${speaker.limit} taken for 0.5 (seed ${seed})`;
  });
  await session.close();
}

async function sessions(from: number, count: number, trouble: Trouble): Promise<Tally> {
  const tally: Tally = { right: 0, refused: 0, wrong: [] };
  const all = Array.from({ length: count }, (_, i) => from + i);
  const hands = Array.from({ length: 100 }, async () => {
    for (let seed = all.shift(); seed !== undefined; seed = all.shift())
      await (seed % 3 === 0 ? supplySession(seed, trouble, tally) : meterSession(seed, trouble, tally));
  });
  await Promise.all(hands);
  return tally;
}

test('2,000 sessions over bad lines: each reading is right or refused, none is of another function @long', async () => {
  const { right, refused, wrong } = await sessions(1, 2000, {
    late: 0.03,
    silent: 0.03,
    garbage: 0.03,
    lostByte: 0.03,
    cut: 0.01,
  });
  expect(wrong).toEqual([]);
  // Neither all refused nor no trouble at all: the lines were bad, and were worked with.
  expect(right).toBeGreaterThan(2500);
  expect(refused).toBeGreaterThan(1000);
}, 120_000);

test('over good lines each reading is right but those that a dial in another function refuses', async () => {
  const { wrong, refused, right } = await sessions(1, 60, CALM);
  expect(wrong).toEqual([]);
  expect(refused / (right + refused)).toBeLessThan(0.35);
}, 60_000);

describe('over TCP, through the line that the server holds', () => {
  /** A transport over the server's own line, as a page has it over HTTP. */
  async function overServer(port: number, farewell?: string): Promise<LineTransport & { readonly giveUp: () => void }> {
    const opened = await openLine({ host: '127.0.0.1', port }, farewell);
    if ('problem' in opened) throw new Error(opened.problem);
    const reader = opened.stream.getReader();
    let heard: (piece: string | undefined) => void = () => {};
    void (async () => {
      for (;;) {
        const { value, done } = await reader.read();
        if (done) return heard(undefined);
        heard(new TextDecoder().decode(value));
      }
    })();
    return {
      name: `127.0.0.1:${port}`,
      write: async (text) => void writeLine(opened.id, text),
      listen: (listener) => void (heard = listener),
      close: () => reader.cancel(),
      giveUp: () => void reader.cancel(),
    };
  }
  test.each(SHIPPED.map((d) => [d.name, d] as const))(
    '%s is met, and what it reads is right',
    async (_, definition) => {
      const speaker = new Speaker(quick(definition, 500), { V: 3.31, Ω: 47.2, drop: 0.455 }, 'Bench,Thing,1,1', 'unit');
      await servedOverTcp(speaker, async (port) => {
        const bench = new Bench();
        const met = await bench.connect(speaker.definition, await overServer(port));
        expect(met.name).toBe(definition.dialect.identify ? 'Bench,Thing,1,1' : definition.name);
        if (met.meter) expect(await met.meter.settled('V')).toBeCloseTo(3.31, 6);
        if (met.supply) {
          await met.supply.set(5, 0.5);
          await met.supply.switch(true);
          expect([await met.supply.state(), speaker.isOn, (await met.supply.output()).volts]).toEqual(['on', true, 5]);
          expect(await bench.disconnect(met.id)).toBeUndefined();
          expect(speaker.isOn).toBe(false);
        } else await bench.disconnect(met.id);
      });
    },
  );

  test('a page that is gone has its output switched off by the server', async () => {
    const speaker = new Speaker(quick(STANDARD_SUPPLY, 500), { V: 5, Ω: 0, drop: 0 }, 'Bench,Supply,1,1');
    await servedOverTcp(speaker, async (port) => {
      const line = await overServer(port, 'OUTP OFF');
      const met = await new Bench().connect(speaker.definition, line);
      await met.supply!.set(5, 0.5);
      await met.supply!.switch(true);
      expect(speaker.isOn).toBe(true);
      line.giveUp();
      for (let k = 0; k < 100 && speaker.isOn; k++) await new Promise((r) => setTimeout(r, 10));
      expect(speaker.isOn).toBe(false);
    });
  });

  test('nobody there, another kind, the same one twice: each is a sentence', async () => {
    expect(await openLine({ host: '127.0.0.1', port: 1 }, undefined)).toEqual({
      problem: expect.stringMatching(/^Expected an instrument at 127\.0\.0\.1:1; .*ECONNREFUSED/),
    });
    const speaker = new Speaker(quick(STANDARD_SUPPLY, 200), { V: 5, Ω: 0, drop: 0 }, 'Bench,Supply,1,1');
    await servedOverTcp(speaker, async (port) => {
      const bench = new Bench();
      await expect(bench.connect(quick(MEASURE_METER, 100), await overServer(port))).rejects.toThrow(
        'It does not speak as “Meter, one question per reading” says. Expected an answer to MEAS:VOLT:DC?',
      );
      await bench.connect(speaker.definition, await overServer(port));
      await expect(bench.connect(speaker.definition, await overServer(port))).rejects.toThrow('is connected already');
    });
  });
});
