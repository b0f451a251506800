import { BenchSupply } from './bench-supply';
import type { InstrumentDefinition } from './definition';
import { InstrumentProblem } from './answers';
import type { Source } from './interlock';
import { LineSession, type LineTransport } from './line-session';
import { Multimeter } from './multimeter';
import { selfTest } from './self-test';
import { StreamMeter } from './stream';

/** An instrument that was connected and met; it stays listed when its line is lost, until it is taken off. */
export interface Connected {
  readonly id: number;
  readonly definition: InstrumentDefinition;
  /** As it calls itself, or as its definition is called where it has no name. */
  readonly name: string;
  /** What it is reached by. */
  readonly way: string;
  readonly isLost: boolean;
  readonly supply?: BenchSupply;
  readonly meter?: Multimeter;
  /** A USB meter or a logger that sends samples by itself. */
  readonly stream?: StreamMeter;
}

/** What real instruments stand on this bench: connected once, used by every page until they are taken off. */
export class Bench {
  private connected: readonly Connected[] = [];
  private readonly sessions = new Map<number, LineSession>();
  private readonly listeners = new Set<() => void>();
  private nextId = 1;

  readonly subscribe = (changed: () => void): (() => void) => {
    this.listeners.add(changed);
    return () => this.listeners.delete(changed);
  };
  /** The same array until something changes. */
  readonly list = (): readonly Connected[] => this.connected;

  /** The meter in hand: the last one connected that is still there. */
  get meter(): Connected | undefined {
    return this.connected.findLast((c) => c.meter && !c.isLost);
  }
  get supply(): Connected | undefined {
    return this.connected.findLast((c) => c.supply && !c.isLost);
  }
  /** Every source of power that is known here; a lost one is one. */
  sources(): Source[] {
    return this.connected
      .filter((c) => c.supply)
      .map(({ name, supply, isLost }) => ({
        name,
        state: async () => (isLost ? 'lost' : supply!.state()),
      }));
  }

  /**
   * Meets an instrument on an open line and tries what it says it can.
   * @throws InstrumentProblem with what was expected and what came; the line is closed then.
   */
  async connect(definition: InstrumentDefinition, transport: LineTransport): Promise<Connected> {
    const { dialect, line } = definition;
    const session = new LineSession(transport, line, dialect.identify);
    try {
      const identity = await session.open();
      const twin = identity !== undefined && this.connected.find((c) => c.name === identity && !c.isLost);
      if (twin) throw new InstrumentProblem(`Expected another instrument; “${identity}” is connected already.`);
      await selfTest(definition, session);
      return this.admit(definition, session, transport.name, identity);
    } catch (error) {
      await session.close().catch(() => {});
      throw error;
    }
  }
  private admit(definition: InstrumentDefinition, session: LineSession, way: string, identity?: string): Connected {
    const { dialect } = definition;
    const name = identity ?? definition.name;
    const admitted: Connected = {
      id: this.nextId++,
      definition,
      name,
      way,
      isLost: false,
      ...(dialect.kind === 'supply' && { supply: new BenchSupply(session, dialect) }),
      ...((dialect.kind === 'usbMeter' || dialect.kind === 'logger') && {
        stream: new StreamMeter(name, dialect, (listener) => session.overhear(listener)),
      }),
      ...(dialect.kind === 'meter' && { meter: new Multimeter(session, dialect) }),
    };
    session.onLost(() => this.mark(admitted.id));
    this.sessions.set(admitted.id, session);
    // One that comes back takes its own place: it is known by its name again.
    this.change([...this.connected.filter((c) => !(c.isLost && c.name === admitted.name)), admitted]);
    return admitted;
  }
  /** Takes it off the list; a supply is switched off first, and where that cannot be done it says so. */
  async disconnect(id: number): Promise<string | undefined> {
    const found = this.connected.find((c) => c.id === id);
    if (!found) return undefined;
    let left: string | undefined;
    if (found.supply) left = await this.switchOff(found);
    await this.sessions
      .get(id)
      ?.close()
      .catch(() => {});
    this.sessions.delete(id);
    this.change(this.connected.filter((c) => c.id !== id));
    return left;
  }
  /** Switches every output off that can be reached, and names those that could not be. */
  async allOff(): Promise<string | undefined> {
    const left = await Promise.all(this.connected.filter((c) => c.supply).map((c) => this.switchOff(c)));
    return left.filter((l) => l !== undefined).join(' ') || undefined;
  }
  private async switchOff({ name, supply, isLost }: Connected): Promise<string | undefined> {
    try {
      if (isLost) throw new InstrumentProblem('its line is lost');
      await supply!.switch(false);
      return undefined;
    } catch (error) {
      return `The output of ${name} could not be switched off (${(error as Error).message}): switch it off there.`;
    }
  }
  private mark(id: number): void {
    this.change(this.connected.map((c) => (c.id === id ? { ...c, isLost: true } : c)));
  }
  private change(next: readonly Connected[]): void {
    this.connected = next;
    this.listeners.forEach((changed) => changed());
  }
}

/** The one bench of this page. */
export const bench = new Bench();
