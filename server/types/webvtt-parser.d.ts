declare module 'webvtt-parser' {
  interface Node {
    readonly type: string;
    readonly name?: string;
    readonly value?: string;
    readonly children?: readonly Node[];
  }
  interface Cue {
    readonly startTime: number;
    readonly endTime: number;
    readonly tree: Node;
  }
  export class WebVTTParser {
    constructor(entities?: Readonly<Record<string, string>>);
    parse(
      text: string,
      kind: string,
    ): {
      readonly cues: readonly Cue[];
      readonly errors: readonly { readonly message: string; readonly line: number }[];
    };
  }
  /** A CommonJS module: its names are found on the default export alone. */
  const webvtt: { readonly WebVTTParser: typeof WebVTTParser };
  export default webvtt;
}
