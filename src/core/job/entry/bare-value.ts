import { readLine } from '../../command-line';

/** True for a line that is a value alone, as typed in a walk: `0.262`, `262m`, `ol`. */
export const isBareValue = (text: string): boolean =>
  readLine(text).words.length === 1 && /^([-+]?[\d.,]+m?|ol|o\.l|open)$/i.test(text.trim());
