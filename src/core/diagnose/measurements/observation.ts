/**
 * What an observer or an instrument makes of a fault: the one place for bare chances in the prediction of readings.
 * Each entry names its source; "engineering estimate" where none is published. Chances are shares of readings on boards
 * with the fault named, wrong readings (slips) not counted: those are the error rate of the kind.
 */
export const OBSERVATION = {
  /** Damage of a contact shows under magnification; dirt and scratches are taken for damage now and then. Engineering estimates. */
  visualInspection: { damageSeen: 0.85, falseAlarm: 0.04 },
  /** The checks of an image find what is corrupted; some corruption is outside what they cover. Engineering estimates. */
  imageCheck: { corruptFails: 0.99, soundFails: 0.01 },
  /** A function without what it needs is seen to fail; a tired pack or a bad cable fails a sound one. Engineering estimates. */
  functionTest: { brokenFails: 0.97, soundFails: 0.03 },
  /** Quick testers ask whether the port talks and are fooled by bad contacts. Common practice; sizes are engineering estimates. */
  portTester: { silentFails: 0.92, badContactFails: 0.7, soundFails: 0.06 },
  /** A known-good one in place of another: what else is wrong still shows. Engineering estimates. */
  knownGoodSwap: { otherOutsideFails: 0.96, brokenFails: 0.98, soundFails: 0.04 },
  /** Half of the tries fail at a dirty CC contact. Engineering estimate. */
  dirtyContact: { talkFails: 0.5 },
  /**
   * A bad charger mostly stays at its first 5 V; a cable whose CC wire is broken mostly lets nothing through at all.
   * Engineering estimates.
   */
  badSupplyAtMeter: {
    charger: { noTalk: 0.8, nothing: 0.12, contractCollapses: 0.08 },
    cable: { nothing: 0.8, noTalk: 0.2 },
  },
  /** How a watched meter behaves, by what is wrong. Directions: common practice; sizes are engineering estimates. */
  meterPattern: {
    steady: { steady: 0.97, swing: 0.01, restart: 0.01, early: 0.01 },
    badImage: { steady: 0.54, swing: 0.44, restart: 0.01, early: 0.01 },
    collapsing: { steady: 0.6, swing: 0.3, restart: 0.09, early: 0.01 },
    restarting: { steady: 0.12, swing: 0.02, restart: 0.85, early: 0.01 },
    earlyLoad: { steady: 0.1, swing: 0.01, restart: 0.01, early: 0.88 },
  },
  /** Where a conversation stops, by what is wrong; what is left is shared out evenly. Engineering estimates. */
  pdNegotiation: {
    badCable: { silent: 0.8, noisy: 0.1 },
    badCharger: { silent: 0.4, notReady: 0.3, collapsed: 0.2 },
    dirtyContact: { noisy: 0.7, contract: 0.2 },
    unpowered: { silent: 0.9, noisy: 0.05 },
    badImage: { offersNotAsked: 0.6, offersUnanswered: 0.2, refused: 0.15 },
    deadController: { offersUnanswered: 0.9, silent: 0.05 },
    collapsing: { collapsed: 0.9, notReady: 0.05 },
    sound: { contract: 0.95 },
  },
  /** Diode mode at a dirty contact, at chips whose inputs are gone, behind a leaking array. Engineering estimates. */
  diodeDrop: {
    dirty: { normal: 0.6, raised: 0.4, raisedByV: 0.08, raisedSdV: 0.04 },
    damagedInputs: { normal: 0.3, open: 0.4, raised: 0.3, raisedByV: 0.15, raisedSdV: 0.08 },
    leak: { shareOfNormal: 0.55 },
  },
  /** What answers to a finger on the part or a moved plug. Common practice; sizes are engineering estimates. */
  pressTest: { crack: 0.7, open: 0.4, dirty: 0.6, still: 0.03 },
  /** What magnification shows of a placed part's joints and neighbours. Engineering estimates. */
  jointLook: { open: 0.5, bridge: 0.85, crack: 0.25, moved: 0.95, reversed: 0.95, falseAlarm: 0.05 },
  /** Behind a dead charge path the pack connector still shows about half a volt (common practice); shares are estimates. */
  deadPackConnector: { floatingV: 0.5, floatingSdV: 0.12, floating: 0.6, zeroSdV: 0.03, zero: 0.4 },
} as const;
