/** What may stand in the message to an owner, and what it becomes. */
export const MESSAGE_FACTS = {
  device: 'the device',
  cause: 'what is most likely at fault',
  chance: 'chances in a hundred that it is cured',
  price: 'the price that is told',
  fee: 'what is asked where it is not cured',
} as const;
export type MessageFact = keyof typeof MESSAGE_FACTS;

export const DEFAULT_MESSAGE =
  'Your {device} can most likely be repaired ({chance} of 100); at fault is probably: {cause}. It would cost {price}. ' +
  'Where we cannot cure it you pay {fee}. Shall we?';

const PLACEHOLDER = /\{([^{}]*)\}/g;

/** The first name in braces that stands for nothing. */
export function unknownFact(message: string): string | undefined {
  return [...message.matchAll(PLACEHOLDER)].find(([, name]) => !(name in MESSAGE_FACTS))?.[0];
}

/** The message with the facts of one job in it. */
export const messageFor = (message: string, facts: Readonly<Record<MessageFact, string>>): string =>
  message.replace(PLACEHOLDER, (whole, name: string) => (name in facts ? facts[name as MessageFact] : whole));
