import type { Board } from '../../board';
import { ALLOYS } from '../../joints';
import { formatVolt } from '../../units';

/** A short question with its answer, and where that is from. */
export interface Fact {
  readonly id: string;
  readonly question: string;
  readonly answer: string;
  readonly source: string;
}

const TYPE_C = 'USB Type-C specification (from memory)';
const PD = 'USB Power Delivery specification (from memory)';
const MOISTURE = 'J-STD-033 (from memory)';
const PRACTICE = 'common practice, no source';

/** What everybody at such a bench should know by heart. */
const TRADE: readonly Fact[] = [
  { id: 'rd', question: 'Which resistance pulls CC down in a device?', answer: '5.1 kΩ (Rd)', source: TYPE_C },
  {
    id: 'rp',
    question: 'Which pull-ups to 5 V tell default current, 1.5 A and 3 A?',
    answer: '56 kΩ, 22 kΩ, 10 kΩ (Rp)',
    source: TYPE_C,
  },
  {
    id: 'cc-3a',
    question: 'Between which voltages lies CC where the charger offers 3 A?',
    answer: '1.31 to 2.04 V',
    source: TYPE_C,
  },
  { id: 'ra', question: 'What is at the other CC pin of a marked cable?', answer: 'Ra, 0.8 to 1.2 kΩ', source: TYPE_C },
  {
    id: 'silent',
    question: 'The USB meter says 5 V and no current, both ways round. What is not there?',
    answer: 'A pull-down that the charger sees, or a conversation after it: CC lines, or a controller without supply',
    source: PRACTICE,
  },
  { id: 'levels', question: 'Which levels has a fixed supply of 65 W?', answer: '5, 9, 15 and 20 V', source: PD },
  {
    id: 'hard-reset',
    question: 'What does a hard reset do to the port’s voltage?',
    answer: 'It goes to 0 V, then to 5 V, and everything is said again',
    source: PD,
  },
  {
    id: 'good-crc',
    question: 'Offers are acknowledged, and nothing is asked for. What lives, and what does not?',
    answer: 'The controller’s hardware lives; its program, that is its image, does not',
    source: PRACTICE,
  },
  ...Object.values(ALLOYS).map(({ words, solidusC, liquidusC }): Fact => ({
    id: `alloy-${words}`,
    question: `Where does ${words} solder melt?`,
    answer: solidusC === liquidusC ? `${solidusC} °C` : `${solidusC} to ${liquidusC} °C`,
    source: 'alloy tables (from memory)',
  })),
  {
    id: 'nudge',
    question: 'What comes before the lift?',
    answer: 'A light nudge: what does not give way is not pulled',
    source: PRACTICE,
  },
  {
    id: 'look-first',
    question: 'What comes before any power on a board that came in?',
    answer: 'The look into the port, and the resistance of its supply to ground',
    source: PRACTICE,
  },
  {
    id: 'short-first',
    question: 'Why no voltage is measured on a rail before its resistance?',
    answer: 'A short eats the supply: nothing is learned, and something may burn',
    source: PRACTICE,
  },
  {
    id: 'msl3',
    question: 'How long may a level 3 package lie open?',
    answer: '168 h at 30 °C and 60 %',
    source: MOISTURE,
  },
  {
    id: 'bake3',
    question: 'How long is a thin level 3 package baked at 125 °C?',
    answer: '9 h, for bodies up to 1.4 mm',
    source: MOISTURE,
  },
  {
    id: 'swollen',
    question: 'A pack is swollen. What is the first step?',
    answer: 'Out, into the fire-safe box, before anything else; local rules come first',
    source: PRACTICE,
  },
  {
    id: 'original',
    question: 'What is kept before an image is written?',
    answer: 'Two equal reads of what is in the chip, saved',
    source: PRACTICE,
  },
  {
    id: 'both-ways',
    question: 'What proves a port?',
    answer: 'A contract and current both ways of the plug, then its rails and functions',
    source: PRACTICE,
  },
];

/** What is to be known of one board: its rails, and whose image lies where. */
function boardFacts(board: Board): Fact[] {
  const source = `board file ${board.id}`;
  const rails = board.rails.flatMap((rail): Fact[] => {
    if (rail.expect.kind !== 'fixed') return [];
    const { volts } = rail.expect;
    const [low, high] = [volts * (1 - rail.tolerance), volts * (1 + rail.tolerance)];
    return [
      {
        id: `${board.id} rail ${rail.id}`,
        question: `What does ${rail.id} have on ${board.device}?`,
        answer: `${formatVolt(volts)} (${formatVolt(low)} to ${formatVolt(high)})`,
        source,
      },
    ];
  });
  const images = board.slots.flatMap(({ ref, image }): Fact[] =>
    image
      ? [
          {
            id: `${board.id} image ${ref}`,
            question: `Where does the image of ${ref} lie on ${board.device}?`,
            answer: image === ref ? `In ${ref} itself` : `In ${image}`,
            source,
          },
        ]
      : [],
  );
  return [...rails, ...images];
}

/** Facts of the trade, then of each board. */
export const allFacts = (boards: readonly Board[]): Fact[] => [...TRADE, ...boards.flatMap(boardFacts)];
