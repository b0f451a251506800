import { MOST_FLIGHT_S, airSetup, type AirDrill, type AirMove, type AirSetting, type Flight } from '@/core/drill';
import type { Board } from '@/core/board';

/** A run in the hand: what was set before it, what is set now, and all that was done. Times are the page's clock, ms. */
export interface AirState {
  readonly phase: 'setup' | 'flying' | 'over';
  readonly flight: Flight;
  readonly setting: AirSetting;
  /** The run's second at a moment of the page's clock, and how many seconds go by in one. */
  readonly clock: { readonly atMs: number; readonly atS: number; readonly speed: number };
  /** What the last nudge said. */
  readonly said?: { readonly atS: number; readonly swam: boolean };
}

/** By how much the dial, the hand and the flow are moved. */
export type AirTurn = Readonly<Partial<Record<keyof AirSetting, number>>>;

export type AirAct =
  | { readonly do: 'cover'; readonly ref: string }
  | { readonly do: 'nozzle'; readonly mm: number }
  | { readonly do: 'plate'; readonly setC: number | null }
  | { readonly do: 'begin'; readonly nowMs: number }
  | { readonly do: 'turn'; readonly nowMs: number; readonly by: AirTurn }
  | { readonly do: 'nudge'; readonly nowMs: number; readonly swam: boolean }
  | { readonly do: 'lift'; readonly nowMs: number }
  | { readonly do: 'away'; readonly nowMs: number }
  | { readonly do: 'speed'; readonly nowMs: number; readonly speed: number };

/** As far as the dial, the flow and the hand go. */
const BOUNDS: Readonly<Record<keyof AirSetting, readonly [number, number]>> = {
  airSetC: [100, 480],
  flowLpm: [5, 120],
  heightMm: [4, 40],
};
const MOST_COVERS = 8;

export function airBegun(board: Board, { ref }: AirDrill): AirState {
  const { nozzleMm, setting } = airSetup(board, ref);
  return {
    phase: 'setup',
    flight: { nozzleMm, covers: [], plateSetC: null, moves: [] },
    setting,
    clock: { atMs: 0, atS: 0, speed: 1 },
  };
}

/** The run's second at a moment of the page's clock. */
export const airSecond = ({ phase, clock }: Pick<AirState, 'phase' | 'clock'>, nowMs: number): number =>
  phase === 'flying'
    ? Math.min(MOST_FLIGHT_S, clock.atS + (Math.max(0, nowMs - clock.atMs) / 1000) * clock.speed)
    : clock.atS;

export function airReducer(state: AirState, act: AirAct): AirState {
  if (state.phase === 'over') return state;
  return state.phase === 'setup' ? settingUp(state, act) : flying(state, act);
}

function settingUp(state: AirState, act: AirAct): AirState {
  const { flight, setting } = state;
  switch (act.do) {
    case 'cover': {
      const has = flight.covers.includes(act.ref);
      const covers = has ? flight.covers.filter((r) => r !== act.ref) : [...flight.covers, act.ref];
      return covers.length > MOST_COVERS ? state : { ...state, flight: { ...flight, covers } };
    }
    case 'nozzle':
      return { ...state, flight: { ...flight, nozzleMm: act.mm } };
    case 'plate':
      return { ...state, flight: { ...flight, plateSetC: act.setC } };
    case 'turn':
      return { ...state, setting: turned(setting, act.by) };
    case 'begin':
      return {
        ...state,
        phase: 'flying',
        flight: { ...flight, moves: [{ do: 'air', atS: 0, ...setting }] },
        clock: { atMs: act.nowMs, atS: 0, speed: state.clock.speed },
      };
    case 'speed':
      return { ...state, clock: { ...state.clock, speed: act.speed } };
    default:
      return state;
  }
}

function flying(state: AirState, act: AirAct): AirState {
  if (!('nowMs' in act) || act.do === 'begin') return state;
  const nowS = airSecond(state, act.nowMs);
  const atS = Math.floor(nowS);
  switch (act.do) {
    case 'turn': {
      const setting = turned(state.setting, act.by);
      return { ...state, setting, flight: withMove(state.flight, { do: 'air', atS, ...setting }) };
    }
    case 'nudge':
      return { ...state, said: { atS, swam: act.swam }, flight: withMove(state.flight, { do: 'nudge', atS }) };
    case 'lift':
      return over(state, nowS, { do: 'lift', atS });
    case 'away':
      return over(state, nowS, { do: 'air', atS, ...state.setting, airSetC: null });
    case 'speed':
      return { ...state, clock: { atMs: act.nowMs, atS: nowS, speed: act.speed } };
  }
}

const over = (state: AirState, nowS: number, move: AirMove): AirState => ({
  ...state,
  phase: 'over',
  flight: withMove(state.flight, move),
  clock: { ...state.clock, atS: nowS },
});

const withMove = (flight: Flight, move: AirMove): Flight => ({ ...flight, moves: [...flight.moves, move] });

function turned(setting: AirSetting, by: AirTurn): AirSetting {
  const next = (name: keyof AirSetting): number => {
    const [low, high] = BOUNDS[name];
    return Math.min(high, Math.max(low, (setting[name] ?? 0) + (by[name] ?? 0)));
  };
  return { airSetC: next('airSetC'), flowLpm: next('flowLpm'), heightMm: next('heightMm') };
}
