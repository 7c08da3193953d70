import type { PDFDocumentProxy } from 'pdfjs-dist';

const open = new Map<string, Promise<PDFDocumentProxy>>();

/** Opens a PDF for drawing, once however often it is asked for; its code and its pages come as they are needed, pages by ranges of the file. */
export function openPdf(address: string, password: string | undefined): Promise<PDFDocumentProxy> {
  let document = open.get(address);
  if (!document) {
    open.set(address, (document = begin(address, password)));
    document.catch(() => open.delete(address));
  }
  return document;
}

export function closePdf(address: string): void {
  void open.get(address)?.then(
    (document) => document.loadingTask.destroy(),
    () => undefined,
  );
  open.delete(address);
}

async function begin(address: string, password: string | undefined): Promise<PDFDocumentProxy> {
  const [{ getDocument, GlobalWorkerOptions }, { default: workerUrl }] = await Promise.all([
    import('pdfjs-dist'),
    import('pdfjs-dist/build/pdf.worker.mjs?url'),
  ]);
  GlobalWorkerOptions.workerSrc = workerUrl;
  return getDocument({
    url: address,
    disableAutoFetch: true,
    rangeChunkSize: 262_144,
    cMapUrl: '/pdf/cmaps/',
    cMapPacked: true,
    standardFontDataUrl: '/pdf/standard_fonts/',
    wasmUrl: '/pdf/wasm/',
    enableXfa: false,
    ...(password === undefined ? {} : { password }),
  }).promise;
}
