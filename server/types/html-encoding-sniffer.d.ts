declare module 'html-encoding-sniffer' {
  export default function sniff(
    bytes: Uint8Array,
    options?: { transportLayerEncodingLabel?: string; defaultEncoding?: string },
  ): string;
}
