import {
  refused,
  type Answers,
  type ImportFile,
  type Importer,
  type ImportQuestion,
  type Outcome,
  type Refused,
} from './importer';
import { billOfMaterial, boardIpc2581, boardKicad, boardNetlist, placementTable } from './board';
import { captureArchive, captureDump, captureTable } from './capture';
import { firmwareHex, firmwareRaw, firmwareSRecords, firmwareText } from './firmware';
import { referencesTable } from './table/references';
import { meterTable } from './table/meter';
import { thermoTable } from './table/thermo';

/** Every kind of file that can be read. A new kind is one definition and one line here. */
export const IMPORTERS: readonly Importer[] = [
  meterTable,
  thermoTable,
  referencesTable,
  captureDump,
  captureTable,
  captureArchive,
  boardNetlist,
  boardKicad,
  boardIpc2581,
  placementTable,
  billOfMaterial,
  firmwareHex,
  firmwareSRecords,
  firmwareText,
  firmwareRaw,
];

/** What a file may be, the likeliest first. */
interface Recognised {
  readonly importer: Importer;
  readonly score: number;
}

/** Below it a file is taken for nothing. */
const LEAST_SCORE = 0.2;
/** Two kinds this near to each other are asked. */
const NEAR = 0.1;

function recognise(file: ImportFile): Recognised[] {
  return IMPORTERS.map((importer) => ({ importer, score: importer.score(file) }))
    .filter(({ score }) => score >= LEAST_SCORE)
    .sort((a, b) => b.score - a.score);
}

/** A file that was read: by which importer, how sure, and what was understood. */
interface Imported {
  readonly importer: string | null;
  readonly score: number;
  readonly outcome: Outcome<unknown>;
}

const ASK_KIND = 'importer';

/** The importer of an id; undefined where there is none. */
const importerById = (id: string): Importer | undefined => IMPORTERS.find((i) => i.id === id);

/**
 * Reads a file of any kind: by what it is recognised as, or as the importer that is named. What is in doubt comes back as
 * questions, and `answers` takes them up. Never throws on what a file holds.
 */
export function importFile(file: ImportFile, answers: Answers = {}, as?: string): Imported {
  if (file.bytes.length === 0)
    return { importer: null, score: 0, outcome: refused('Expected a file with content; got an empty one.') };
  const wanted = as ?? answers[ASK_KIND];
  const named = wanted === undefined ? undefined : importerById(wanted);
  if (wanted !== undefined && !named)
    return {
      importer: null,
      score: 0,
      outcome: refused(`Expected one of ${IMPORTERS.map((i) => i.id).join(', ')}; got "${wanted}".`),
    };
  const found = recognise(file);
  const best = named ? { importer: named, score: named.score(file) } : found[0];
  if (!best)
    return {
      importer: null,
      score: 0,
      outcome: refused('Expected a table, a capture, a firmware image or a board; this file is none that can be read.'),
    };
  const outcome = readBounded(best.importer, file, answers);
  const rival = named ? undefined : found.find((f) => f !== found[0] && f.score > best.score - NEAR);
  return {
    importer: best.importer.id,
    score: best.score,
    outcome: rival ? withKindAsked(outcome, best.importer, rival.importer) : outcome,
  };
}

function readBounded(importer: Importer, file: ImportFile, answers: Answers): Outcome<unknown> {
  if (file.bytes.length > importer.mostBytes)
    return refused(
      `Expected at most ${importer.mostBytes / 2 ** 20} MiB of ${importer.title}; got ${(file.bytes.length / 2 ** 20).toFixed(1)}.`,
    );
  return importer.read(file, answers);
}

/** Two kinds are about as likely: the reading is shown, its value is held back until one is chosen. */
function withKindAsked(outcome: Outcome<unknown>, best: Importer, rival: Importer): Outcome<unknown> | Refused {
  if (outcome.kind === 'refused') return outcome;
  const question: ImportQuestion = {
    id: ASK_KIND,
    why: `The file may be ${best.title} or ${rival.title}.`,
    choices: [best.id, rival.id],
  };
  return { ...outcome, questions: [question, ...outcome.questions], value: undefined };
}
