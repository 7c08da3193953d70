import type { Paragraph } from './paragraphs';

export interface PdfPage {
  /** In points. */
  readonly width: number;
  readonly height: number;
  readonly label: string;
  readonly paragraphs: readonly Paragraph[];
}
