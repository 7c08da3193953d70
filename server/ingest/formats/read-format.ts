import { AppError } from '../../errors';
import type { Got } from '../got';
import type { Made, Tools } from '../made';
import { recognise } from '../recognise';
import { readBook } from './book';
import { readHtml } from './html';
import { readLetter } from './letter';
import { readPdf } from './pdf/read-pdf';
import { readPicture } from './picture';
import { readRecording } from './recording';
import { readMimePage, readWebArchive, readZippedPage } from './saved-pages';
import { readCsv, readMarkdown, readPlainText } from './texts';
import { readWordDocument } from './word-document';

/** Whatever came, read by what it is. */
export async function readFormat(got: Got, tools: Tools): Promise<Made> {
  const { format, mediaType } = await recognise(got);
  switch (format) {
    case 'html':
      return readHtml(got, tools);
    case 'markdown':
      return readMarkdown(got, tools);
    case 'text':
      return readPlainText(got, tools);
    case 'csv':
      return readCsv(got, tools);
    case 'pdf':
      return readPdf(got, tools);
    case 'book':
      return readBook(got, tools);
    case 'document':
      return readWordDocument(got, tools);
    case 'image':
      return readPicture(got, mediaType);
    case 'audio':
    case 'video':
      return readRecording(got, mediaType, format, tools);
    case 'letter':
      return readLetter(got, tools);
    case 'archive':
      return readZippedPage(got, tools);
    case 'saved-page':
      return readMimePage(got, tools);
    case 'web-archive':
      return readWebArchive(got, tools);
    case 'transcript':
      throw new AppError('no_recording', { name: got.name }, { field: 'file' });
  }
}
