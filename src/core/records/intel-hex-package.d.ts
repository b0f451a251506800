/** The package has no types of its own. */
declare module 'intel-hex' {
  export function parse(text: string, size: number): { readonly data: Uint8Array };
}
