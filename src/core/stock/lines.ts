import type { DonorId, LotId, PartRef } from '../identities';
import {
  completeLine,
  defineCommand,
  parseLine,
  type CommandDefinition,
  type CommandLine,
  type Grammar,
} from '../command-line';
import { fail, ok, type Result } from '../result';
import { checkStock } from './check';
import { CONDITIONS, placeWords, stockBodySchema, type Condition, type Place, type StockBody } from './events';
import type { Chip, StockState } from './state';

/** What the entry line has to know beside the stock: part types with their partners, and the places of boards. */
export interface StockWorld {
  readonly state: StockState;
  readonly types: readonly { readonly id: string; readonly partner?: string | null }[];
  readonly boards: readonly {
    readonly id: string;
    readonly slots: readonly { readonly ref: PartRef; readonly type: string; readonly image?: string }[];
  }[];
}

export interface StockEntry {
  readonly bodies: readonly StockBody[];
  /** What it means, in words. */
  readonly echo: string;
}

/** The next free number of a letter. */
export function nextId({ lots, chips, donors }: StockState, letter: 'L' | 'C' | 'D'): string {
  const numbers = [...lots.keys(), ...chips.keys(), ...donors.keys()]
    .filter((id) => id.startsWith(`${letter}-`))
    .map((id) => Number(id.slice(2)));
  return `${letter}-${Math.max(0, ...numbers) + 1}`;
}

/**
 * Reads a line of the stock and holds it against the stock. A reason after `because` lifts what is a matter of care: a pair
 * that is parted, a donor that nobody proved, a patient's chip for another job.
 */
export function parseStockEntry(world: StockWorld, text: string): Result<StockEntry> {
  const [line, because] = text.trim().split(/\s+because\s+/i);
  const read = parseLine(STOCK_GRAMMAR, { world, because: because?.trim() || undefined }, line);
  if (!read.ok) return read;
  for (const body of read.value.bodies) {
    const parsed = stockBodySchema.safeParse(body);
    if (!parsed.success) return fail(`${parsed.error.issues[0].message}.`);
  }
  const refused = checkAll(world.state, read.value.bodies);
  return refused ? fail(refused) : read;
}

/** The first event is held against the stock as it is; later ones follow from it. */
const checkAll = (state: StockState, [first]: readonly StockBody[]): string | undefined => checkStock(state, first);

/** What one line may read: the world, and the reason that was given after `because`. */
interface StockLineContext {
  readonly world: StockWorld;
  readonly because?: string;
}

type StockLine = CommandDefinition<StockLineContext, StockEntry>;
const defineStockLine = (definition: StockLine): StockLine => defineCommand<StockLineContext, StockEntry>(definition);

/** The words after the head as they were typed: reasons keep their capitals. */
const typed = ({ rest }: CommandLine): string[] => rest.split(/\s+/).filter(Boolean);
const lower = (names: Iterable<string>): string[] => [...names].map((n) => n.toLowerCase());
const secondOf = (list: readonly string[], words: readonly string[]): readonly string[] =>
  words.length === 2 ? list : [];

const takeLine = defineStockLine({
  name: 'take',
  usage: [{ example: 'take l-12 for 31', help: 'one of a lot, set aside for a job' }],
  parse: ({ world }, line) => readTake(world, typed(line)),
  complete: ({ world }, words) => (words.length === 3 ? ['for'] : secondOf(lower(world.state.lots.keys()), words)),
});

const chipLine = defineStockLine({
  name: 'chip',
  matches: (_context, { head }) => /^c-\d+$/.test(head),
  usage: [
    { example: 'c-101 for 31', help: 'a chip set aside for a job' },
    { example: 'c-101 on 31 u4', help: 'fitted' },
    { example: 'c-101 back', help: 'off the board, or to its own tray or drawer' },
    { example: 'c-101 scrap', help: 'thrown away' },
    { example: 'c-101 dead no output', help: 'sound, suspect or dead, with the reason' },
    { example: 'c-101 reballed', help: 'balls are new' },
  ],
  parse: ({ world, because }, line) => readChip(world, line.head.toUpperCase(), typed(line), because),
  complete: (_context, words) => secondOf(['for', 'on', 'back', 'scrap', 'reballed', ...CONDITIONS], words),
});

const offLine = defineStockLine({
  name: 'off',
  usage: [{ example: 'off 32 u4 dead', help: 'taken off a job’s board, into the tray of that job' }],
  parse: ({ world }, line) => readOff(world, typed(line)),
  complete: (_context, words) => (words.length === 4 ? CONDITIONS : []),
});

const ofLotLine = defineStockLine({
  name: 'lot number',
  matches: (_context, { head }) => /^l-\d+$/.test(head),
  usage: [
    { example: 'l-13 open', help: 'the moisture clock of a lot or chip: open, dry, out, baked' },
    { example: 'l-13 count 4 recounted', help: 'what was counted, with the reason' },
  ],
  parse: (_context, line) => readOfLot(line.head.toUpperCase(), typed(line)),
  complete: (_context, words) => secondOf([...Object.keys(MOISTURE_WORDS), 'count'], words),
});

const lotLine = defineStockLine({
  name: 'lot',
  usage: [{ example: 'lot heron-pd-r2 10 at 8.5', help: 'a new lot, sealed; “open” where it is not' }],
  parse: ({ world }, line) => readLot(world, typed(line)),
  complete: ({ world }, words) =>
    words.length === 4
      ? ['at']
      : secondOf(
          world.types.map((t) => t.id),
          words,
        ),
});

const donorLine = defineStockLine({
  name: 'donor',
  usage: [
    {
      example: 'donor marshdesk-2-b at 48 u11 u12=marsh-pd-r3f',
      help: 'a donor and the chips it carries, as built or by type',
    },
  ],
  parse: ({ world }, line) => readDonor(world, typed(line)),
  complete: ({ world }, words) =>
    words.length === 3
      ? ['at']
      : secondOf(
          world.boards.map((b) => b.id),
          words,
        ),
});

const ofDonorLine = defineStockLine({
  name: 'donor number',
  matches: (_context, { head }) => /^d-\d+$/.test(head),
  usage: [
    { example: 'd-5 works charge', help: 'seen on the donor, or: fails' },
    { example: 'd-5 opened', help: 'the donor is opened' },
  ],
  parse: ({ because }, line) => readOfDonor(line.head.toUpperCase(), typed(line), because),
  complete: (_context, words) => secondOf(['works', 'fails', 'opened'], words),
});

const pullLine = defineStockLine({
  name: 'pull',
  usage: [{ example: 'pull d-3 u12', help: 'a chip off a donor, with its partner' }],
  parse: ({ world }, line) => readPull(world, typed(line)),
  complete({ world }, words) {
    if (words.length === 2) return lower(world.state.donors.keys());
    const donor = world.state.donors.get((words[1] ?? '').toUpperCase());
    return words.length === 3 && donor ? lower(donor.parts.map((p) => p.ref)) : [];
  },
});

export const STOCK_GRAMMAR: Grammar<StockLineContext, StockEntry> = {
  emptyLine: 'a lot, chip or donor such as L-12, C-101, D-3, or what comes in',
  nameExamples: ['L-12', 'C-101', 'D-3'],
  commands: [takeLine, chipLine, offLine, ofLotLine, lotLine, donorLine, ofDonorLine, pullLine],
  names: ({ world: { state } }) => lower([...state.chips.keys(), ...state.lots.keys(), ...state.donors.keys()]),
};

/** Words that can follow what is typed. */
export const completeStockEntry = (world: StockWorld, text: string): string[] =>
  completeLine(STOCK_GRAMMAR, { world }, text);

const one = (body: StockBody, echo: string): Result<StockEntry> => ok({ bodies: [body], echo });

/** A job's number after `for` or `on`; digits only. */
const jobOf = (text: string | undefined): number | undefined =>
  text !== undefined && /^[1-9]\d*$/.test(text) ? Number(text) : undefined;

function readTake({ state }: StockWorld, [lotText = '', word, jobText]: readonly string[]): Result<StockEntry> {
  const lot = lotText.toUpperCase();
  if (!/^L-\d+$/.test(lot)) return fail(`Expected a lot, as in "take l-12 for 31"; got "${lotText}".`);
  const chip = nextId(state, 'C');
  const taken: StockBody = { kind: 'take', lot, chip };
  if (word === undefined) return one(taken, `${chip} taken from ${lot}`);
  const job = jobOf(jobText);
  if (word.toLowerCase() !== 'for' || job === undefined)
    return fail(
      `Expected "for" and a job’s number, as in "take l-12 for 31"; got "${[word, jobText].join(' ').trim()}".`,
    );
  const to: Place = { kind: 'bag', job };
  return ok({ bodies: [taken, { kind: 'move', chips: [chip], to }], echo: `${chip} of ${lot}, ${placeWords(to)}` });
}

function readChip(
  { state }: StockWorld,
  id: string,
  [word = '', ...rest]: readonly string[],
  override: string | undefined,
): Result<StockEntry> {
  const chip = state.chips.get(id);
  if (!chip) return fail(`Expected a chip that exists; there is no ${id}.`);
  const verb = word.toLowerCase();
  if (verb === 'for' || verb === 'on') return readForJob(chip, verb, rest, override);
  if (verb === 'back' || verb === 'scrap') {
    const to: Place = verb === 'scrap' ? { kind: 'scrap' } : homeOf(chip);
    return moved(to, override, verb === 'back' ? together(state, chip) : [id]);
  }
  if (verb === 'reballed') return one({ kind: 'reballed', chip: id }, `${id} reballed`);
  if (isMoisture(verb)) return one({ kind: 'moisture', of: id, what: verb }, `${id} ${MOISTURE_WORDS[verb]}`);
  if (isCondition(verb)) {
    const why = rest.join(' ');
    if (!why) return fail(`Expected why ${id} is ${verb}, as in "${id.toLowerCase()} ${verb} no output".`);
    return one({ kind: 'judged', chip: id, condition: verb, why }, `${id} is ${verb}: ${why}`);
  }
  return fail(`Expected for, on, back, scrap, reballed, a condition or a moisture word after ${id}; got "${word}".`);
}

function readForJob(
  chip: Chip,
  verb: 'for' | 'on',
  [jobText, refText]: readonly string[],
  override: string | undefined,
): Result<StockEntry> {
  const job = jobOf(jobText);
  if (job === undefined) return fail(`Expected a job’s number after "${verb}"; got "${jobText ?? ''}".`);
  if (verb === 'for') return moved({ kind: 'bag', job }, override, override ? [chip.id] : [chip.id, ...chip.partners]);
  if (!refText) return fail(`Expected the place, as in "${chip.id.toLowerCase()} on ${job} u4"; got none.`);
  return moved({ kind: 'fitted', job, ref: refText.toUpperCase() }, override, [chip.id]);
}

/** A pair that lies together goes back together. */
const together = (state: StockState, chip: Chip): string[] => [
  chip.id,
  ...chip.partners.filter((p) => JSON.stringify(state.chips.get(p)!.place) === JSON.stringify(chip.place)),
];

function moved(to: Place, override: string | undefined, chips: readonly string[]): Result<StockEntry> {
  const body: StockBody = { kind: 'move', chips: [...chips], to, override };
  return one(body, `${chips.join(' with ')}: ${placeWords(to)}${override ? `, because ${override}` : ''}`);
}

/** What is on a board comes off into the tray of that job; what lies elsewhere goes to where it came from. */
function homeOf({ origin, place }: Chip): Place {
  if (place.kind === 'fitted') return { kind: 'patientTray', job: place.job };
  switch (origin.kind) {
    case 'lot':
      return { kind: 'drawer' };
    case 'donor':
      return { kind: 'donorTray', donor: origin.donor };
    case 'job':
      return { kind: 'patientTray', job: origin.job };
  }
}

const MOISTURE_WORDS = { open: 'opened', dry: 'into the dry cabinet', out: 'out of the dry cabinet', baked: 'baked' };
const isMoisture = (word: string): word is keyof typeof MOISTURE_WORDS => word in MOISTURE_WORDS;
const isCondition = (word: string): word is Condition => (CONDITIONS as readonly string[]).includes(word);

function readOfLot(lot: LotId, [word = '', ...rest]: readonly string[]): Result<StockEntry> {
  const verb = word.toLowerCase();
  if (isMoisture(verb)) return one({ kind: 'moisture', of: lot, what: verb }, `${lot} ${MOISTURE_WORDS[verb]}`);
  if (verb === 'count') {
    const [countText = '', ...why] = rest;
    if (!/^\d+$/.test(countText) || why.length === 0)
      return fail(`Expected a count and why, as in "${lot.toLowerCase()} count 4 recounted"; got "${rest.join(' ')}".`);
    const count = Number(countText);
    return one({ kind: 'lotCounted', lot, count, why: why.join(' ') }, `${lot}: ${count} counted`);
  }
  return fail(`Expected open, dry, out, baked or count after ${lot}; got "${word}".`);
}

function readOff(
  { state, types, boards }: StockWorld,
  [jobText, refText = '', ...rest]: readonly string[],
): Result<StockEntry> {
  const job = jobOf(jobText);
  const ref = refText.toUpperCase();
  if (job === undefined || !/^[A-Z]{1,3}\d{1,4}$/.test(ref))
    return fail(`Expected a job and a place, as in "off 32 u4 dead"; got "${[jobText, refText].join(' ').trim()}".`);
  const named = rest.find((w) => types.some((t) => t.id === w.toLowerCase()))?.toLowerCase();
  const built = new Set(boards.flatMap((b) => b.slots.filter((s) => s.ref === ref).map((s) => s.type)));
  const typeId = named ?? (built.size === 1 ? [...built][0] : undefined);
  if (!typeId) return fail(`Expected the part type too, since several boards have a ${ref}; got none.`);
  const condition = rest.map((w) => w.toLowerCase()).find(isCondition) ?? 'suspect';
  const chip = nextId(state, 'C');
  return one(
    { kind: 'removed', job, ref, chip, typeId, condition },
    `${chip}: ${typeId} off job ${job}, ${ref}, ${condition}, into the tray of that job`,
  );
}

function readLot(
  { state, types }: StockWorld,
  [typeText = '', countText = '', at, priceText = '', open]: readonly string[],
): Result<StockEntry> {
  const typeId = typeText.toLowerCase();
  if (!types.some((t) => t.id === typeId)) return fail(`Expected a part type of the library; got "${typeText}".`);
  const [count, unitPrice] = [Number(countText), Number(priceText)];
  if (!(Number.isInteger(count) && count > 0) || at?.toLowerCase() !== 'at' || !(priceText !== '' && unitPrice >= 0))
    return fail(
      `Expected a count and a price each, as in "lot ${typeId} 10 at 8.5"; got "${[countText, at, priceText].join(' ').trim()}".`,
    );
  const lot = nextId(state, 'L');
  const sealed = open?.toLowerCase() !== 'open';
  const bag = sealed ? 'sealed' : 'open for nobody knows how long';
  return one(
    { kind: 'lotIn', lot, typeId, count, unitPrice, sealed },
    `${lot}: ${count} ${typeId} at ${unitPrice.toFixed(2)}, ${bag}`,
  );
}

function readDonor(
  { state, boards }: StockWorld,
  [boardText = '', at, priceText = '', ...refs]: readonly string[],
): Result<StockEntry> {
  const board = boards.find((b) => b.id === boardText.toLowerCase());
  if (!board) return fail(`Expected a board of the library; got "${boardText}".`);
  const price = Number(priceText);
  if (at?.toLowerCase() !== 'at' || !(priceText !== '' && price >= 0))
    return fail(`Expected a price, as in "donor ${board.id} at 48"; got "${[at, priceText].join(' ').trim()}".`);
  const named = refs.map((text) => {
    const [ref, typeId] = text.split('=');
    const slot = board.slots.find((s) => s.ref === ref.toUpperCase());
    return { ref: ref.toUpperCase(), typeId: typeId?.toLowerCase() ?? slot?.type };
  });
  const lost = named.find((p) => p.typeId === undefined);
  if (lost) return fail(`Expected places whose part type matters on ${board.id}; ${lost.ref} is not one.`);
  const parts = (named.length > 0 ? named : board.slots.map(({ ref, type }) => ({ ref, typeId: type }))).map((p) => ({
    ref: p.ref,
    typeId: p.typeId!,
    sound: true,
  }));
  const donor = nextId(state, 'D');
  return one(
    { kind: 'donorIn', donor, boardId: board.id, price, parts, note: '' },
    `${donor}: ${board.id} at ${price.toFixed(2)} with ${parts.map((p) => p.ref).join(', ')}`,
  );
}

function readOfDonor(
  donor: DonorId,
  [word = '', fn]: readonly string[],
  override: string | undefined,
): Result<StockEntry> {
  const verb = word.toLowerCase();
  if (verb === 'works' || verb === 'fails') {
    if (!fn) return fail(`Expected a function, as in "${donor.toLowerCase()} ${verb} charge"; got none.`);
    return one(
      { kind: 'donorProven', donor, fn: fn.toLowerCase(), worked: verb === 'works' },
      `${donor}: ${fn} ${verb}`,
    );
  }
  if (verb === 'opened')
    return one({ kind: 'donorOpened', donor, override }, `${donor} opened${override ? `, because ${override}` : ''}`);
  return fail(`Expected works, fails or opened after ${donor}; got "${word}".`);
}

function readPull(
  { state, types, boards }: StockWorld,
  [donorText = '', refText = '']: readonly string[],
): Result<StockEntry> {
  const id = donorText.toUpperCase();
  const donor = state.donors.get(id);
  if (id === '') return fail('Expected a donor, as in "pull d-3 u12"; got none.');
  if (!donor) return fail(`Expected a donor that exists; there is no ${id}.`);
  const ref = refText.toUpperCase();
  const part = donor.parts.find((p) => p.ref === ref);
  const partner = part && types.find((t) => t.id === part.typeId)?.partner;
  const image = boards.find((b) => b.id === donor.boardId)?.slots.find((s) => s.ref === ref)?.image;
  const memory = donor.parts.find((p) => p.ref === image && p.typeId === partner);
  const first = Number(nextId(state, 'C').slice(2));
  const chips = [ref, ...(memory ? [memory.ref] : [])].map((r, i) => ({ ref: r, chip: `C-${first + i}` }));
  const echo = chips.map((c) => `${c.chip} is ${c.ref}`).join(', ');
  return one(
    { kind: 'pull', donor: id, chips, paired: memory !== undefined },
    `Off ${id}: ${echo}${memory ? ', a pair' : ''}, into its tray`,
  );
}
