/** The core without a browser: files in, JSON out. Bad input ends with exit code 2 and a readable problem. */
import { Command, CommanderError } from 'commander';
import { addBallsCommands } from './balls';
import { addBoardCommands } from './board';
import { addDayCommands } from './day';
import { addDiagnoseCommands } from './diagnose';
import { addHeatCommands } from './heat';
import { addImageCommands } from './image';
import { addImportCommand } from './import';
import { InputProblem } from './input';
import { addPartCommands } from './parts';
import { addProofCommands } from './proof';
import { addSchemaCommand } from './schema';
import { addUsbCommands } from './usb';
import { addDrillCommands } from './drill';
import { addRecordsCommands } from './records';
import { addVerifyCommand } from './verify';

export function program(): Command {
  const root = new Command('unisolda').description('Bench arithmetic from the command line').exitOverride();
  addHeatCommands(root);
  addBallsCommands(root);
  addDiagnoseCommands(root);
  addImageCommands(root);
  addProofCommands(root);
  addUsbCommands(root);
  addImportCommand(root);
  addBoardCommands(root);
  addPartCommands(root);
  addDayCommands(root);
  addSchemaCommand(root);
  addVerifyCommand(root);
  addRecordsCommands(root);
  addDrillCommands(root);
  return root;
}

/** @returns the exit code: 0 done, 2 bad input; a command may say its own. */
export async function run(args: readonly string[]): Promise<number> {
  try {
    process.exitCode = 0;
    await program().parseAsync(args, { from: 'user' });
    return Number(process.exitCode ?? 0);
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
    if (!(error instanceof InputProblem)) throw error;
    process.stderr.write(`${error.message}\n`);
    return 2;
  }
}
