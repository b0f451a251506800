/**
 * An instrument that is asked and told in lines of text, in the style of IEEE 488.2 and SCPI-1999: a query has one line of answer.
 */
export interface TextInstrument {
  ask(query: string): Promise<string>;
  /** As `ask`, where an older answer in its place would do harm. */
  askSurely?(query: string): Promise<string>;
  tell(command: string): Promise<void>;
  /** The next whole line that it sends by itself, where it does. */
  hear?(): Promise<string>;
}
