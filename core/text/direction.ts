/** Scripts written from right to left (UAX #9, bidirectional classes R and AL). */
const RIGHT_TO_LEFT =
  /[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}\p{Script=Adlam}\p{Script=Samaritan}\p{Script=Mandaic}]/gu;
const LETTER = /\p{L}/gu;
/** So many characters tell what most of a text is. */
const ENOUGH = 20_000;
/** Languages that are written in such a script unless another is named (CLDR, likely subtags). */
const LANGUAGES = /^(ar|he|iw|fa|ur|yi|ps|sd|ug|dv|ckb|syr|arc)$/i;

/** The direction most letters of a text are read in; where it has too few to tell, that of its language (BCP 47). */
export function textDirection(text: string, language = ''): 'ltr' | 'rtl' {
  const start = text.slice(0, ENOUGH);
  const letters = start.match(LETTER)?.length ?? 0;
  if (letters === 0) return LANGUAGES.test(language.split('-')[0]!) ? 'rtl' : 'ltr';
  return (start.match(RIGHT_TO_LEFT)?.length ?? 0) * 2 > letters ? 'rtl' : 'ltr';
}
