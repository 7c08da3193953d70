const SYLLABLES =
  'mar tid cre lev peg mud sil wat slu kee pas she lav gla pan ban cha gau spr nea har dre sto shi bra gra pea acc ret squ'.split(
    ' ',
  );

/** A vocabulary of 6,000 made-up words, used as words are: few of them often, most of them seldom (Zipf, roughly). */
const WORDS = Array.from(
  { length: 6000 },
  (_, n) =>
    SYLLABLES[n % 30]! + SYLLABLES[Math.floor(n / 30) % 30]! + (n >= 900 ? SYLLABLES[Math.floor(n / 900)]! : ''),
);
export const word = (share: number): string =>
  WORDS[Math.min(WORDS.length - 1, Math.floor(WORDS.length * share ** 4))]!;

/** Text of about `characters` characters in sentences and paragraphs. */
export function prose(characters: number, random: () => number): string {
  const paragraphs: string[] = [];
  for (let length = 0; length < characters;) {
    const sentences = Array.from({ length: 4 + Math.floor(random() * 4) }, () => {
      const words = Array.from({ length: 6 + Math.floor(random() * 14) }, () => word(random()));
      return `${words.join(' ').replace(/^./, (c) => c.toUpperCase())} ${Math.floor(random() * 900)}.`;
    });
    paragraphs.push(sentences.join(' '));
    length += paragraphs.at(-1)!.length + 1;
  }
  return paragraphs.join('\n\n');
}
