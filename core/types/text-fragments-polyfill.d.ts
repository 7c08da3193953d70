declare module 'text-fragments-polyfill/text-fragment-utils' {
  interface Parsed {
    readonly textStart: string;
  }
  export function parseFragmentDirectives(directives: { readonly text: readonly string[] }): {
    readonly text: readonly Parsed[];
  };
  export function processTextFragmentDirective(
    directive: Parsed | undefined,
    document: unknown,
    root: unknown,
  ): readonly { toString(): string }[];
}
