/** Writes the demo meter traces and captures that a person can load on the Outside screen. Run with: npx tsx demo/build-traces.ts */
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { seededRandom } from '../src/core/math';
import { simulateTrace, type Trace } from '../src/core/trace';
import { captureCsv, conversation, edgesOf, OFFERS_65W, type ConversationTrouble } from '../src/core/usb';

const folder = path.resolve('demo/outside');
mkdirSync(folder, { recursive: true });
const write = (name: string, text: string): void => writeFileSync(path.join(folder, name), text);

const csv = ({ timesS, volts, amps }: Trace): string =>
  `Time (s),Voltage (V),Current (A)\n${Array.from(timesS, (t, i) => `${t.toFixed(1)},${volts[i].toFixed(3)},${amps[i].toFixed(3)}`).join('\n')}\n`;

const talk = (trouble: ConversationTrouble, seed: number): string => {
  const packets = conversation({ trouble, offers: OFFERS_65W, want: 3, wantMa: 2000 });
  return captureCsv(edgesOf(packets, { seed, jitterS: 6e-8, clockError: 0.01 }), 'CC1', 4e6);
};

const random = seededRandom(31);
write(
  'silent-a-way.csv',
  csv(simulateTrace([{ name: 'noTalk', durationS: 60, volts: 5.02, amps: [0.012, 0.012] }], random)),
);
write(
  'charging-b-way.csv',
  csv(
    simulateTrace(
      [
        { name: 'noTalk', durationS: 4, volts: 5.02, amps: [0.01, 0.01] },
        { name: 'idle', durationS: 6, volts: 15.05, amps: [0.01, 0.01] },
        { name: 'ramp', durationS: 18, volts: 15.02, amps: [0.06, 0.62] },
        { name: 'hold', durationS: 32, volts: 14.98, amps: [0.62, 0.62] },
      ],
      random,
    ),
  ),
);
write('offers-unanswered.csv', talk('noAnswer', 5));
write('contract.csv', talk('none', 6));
