/** What is used of eSpeak NG as the package compiles it: its program, with a file system of its own. */
declare module 'espeak-ng' {
  export interface EspeakOptions {
    readonly arguments: readonly string[];
    print?(line: string): void;
    printErr?(line: string): void;
    instantiateWasm?(imports: WebAssembly.Imports, done: (instance: WebAssembly.Instance) => void): object;
  }
  interface Espeak {
    readonly FS: { readFile(path: string): Uint8Array<ArrayBuffer> };
  }
  export default function createEspeak(options: EspeakOptions): Promise<Espeak>;
}
