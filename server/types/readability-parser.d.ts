declare module '@mozilla/readability/JSDOMParser.js' {
  /** The small document the extraction library was written against; it reads well-formed markup alone. */
  interface SmallElement {
    readonly childNodes: readonly SmallElement[];
    getAttribute(name: string): string | undefined;
    getElementsByTagName(name: string): readonly SmallElement[];
  }
  export default class JSDOMParser {
    parse(html: string, address?: string): Document;
  }
}
