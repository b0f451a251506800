declare module 's-expression' {
  /** One expression as nested arrays of words and text objects; an error object where it is none. */
  export default function parse(text: string): unknown;
}
