/**
 * Encodings a text may be read in again by hand, by their names in the Encoding Standard, the likeliest of each script
 * first (common practice).
 */
export const ENCODINGS = {
  'UTF-8': 'Unicode (UTF-8)',
  'UTF-16LE': 'Unicode (UTF-16)',
  'windows-1252': 'Western European',
  'windows-1250': 'Central European',
  'windows-1257': 'Baltic',
  'windows-1254': 'Turkish',
  'windows-1253': 'Greek',
  'windows-1251': 'Cyrillic',
  'KOI8-R': 'Cyrillic (KOI8)',
  'windows-1255': 'Hebrew',
  'windows-1256': 'Arabic',
  gb18030: 'Chinese, simplified',
  Big5: 'Chinese, traditional',
  Shift_JIS: 'Japanese',
  'EUC-JP': 'Japanese (EUC)',
  'EUC-KR': 'Korean',
} as const;
export type Encoding = keyof typeof ENCODINGS;
export const isEncoding = (name: string): name is Encoding => Object.hasOwn(ENCODINGS, name);
