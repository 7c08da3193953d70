import { STARTING_LEGEND } from '@avrelle/core/legend';
import { sentences } from '@avrelle/core/text';
import type { SourceText } from '@avrelle/core/wire';
import type { DemoMark, SourceKey } from './marks';
import { STUDENTS } from './people';

type Random = () => number;
interface Span {
  readonly start: number;
  readonly end: number;
}
interface BareMark {
  readonly mark: DemoMark;
  readonly at: Span;
}

/** How many each student makes, of which source in which course. */
const EACH = [
  ['marsh', 'B', 5],
  ['marsh', 'A', 4],
  ['pegs', 'B', 3],
  ['packet', 'B', 2],
  ['keeper', 'B', 1],
  ['creek', 'B', 1],
] as const;
/** Who has not got to it. */
const SILENT = ['wim', 'jory'];

/** Highlights without words, by everybody; on what is read most, by the teacher, too. */
export function bareMarks(textOf: (source: SourceKey) => SourceText, random: Random): readonly BareMark[] {
  return EACH.flatMap(([source, letter, each]) => {
    const { text, outline } = textOf(source);
    const body = sentences(text).filter(
      (s) =>
        s.end - s.start > 45 &&
        outline.some((b) => !b.aside && b.role === 'paragraph' && b.start <= s.start && s.end <= b.end),
    );
    // Some sentences draw more readers than others, and most readers see the same in one.
    const drawn = body
      .map((sentence) => ({ sentence, kind: anyKind(random), pull: random() }))
      .toSorted((a, b) => b.pull - a.pull);
    const mark = (by: string, kind: string, sentence: Span): BareMark => ({
      mark: { source, by, kind, quote: '', for: letter, daysAgo: 1 + Math.floor(random() * 6) },
      at: phrase(text, sentence, random),
    });
    // What draws the class, and something that it passes over.
    const taught = each > 3 ? [...drawn.slice(0, 3), drawn.at(-1)!] : [];
    const students = STUDENTS.filter((s) => s.classes.includes(letter) && !SILENT.includes(s.key));
    return [
      ...taught.map(({ kind, sentence }) => mark('aldous', kind, sentence)),
      ...students.flatMap(({ key }) =>
        Array.from({ length: each }, () => {
          const { sentence, kind } = drawn[Math.floor(random() ** 2.2 * drawn.length)]!;
          return mark(key, random() < 0.75 ? kind : anyKind(random), sentence);
        }),
      ),
    ];
  });
}

const anyKind = (random: Random): string => STARTING_LEGEND[Math.floor(random() ** 1.4 * STARTING_LEGEND.length)]!.code;

/** A whole sentence, or the part before or after a comma. */
function phrase(text: string, { start, end }: Span, random: Random): Span {
  const comma = text.slice(start, end).indexOf(', ');
  if (comma < 20 || end - start - comma < 20 || random() < 0.4) return { start, end };
  return random() < 0.5 ? { start, end: start + comma } : { start: start + comma + 2, end };
}
