import fs from 'node:fs';
import DiffMatchPatch from 'diff-match-patch';
import { describe, indexText, locateAll, SURE, type Anchor } from '@avrelle/core/anchor';
import { readTree, sentences } from '@avrelle/core/text';
import { lightTree } from '../server/ingest/light-tree';
import { edit, EDITS, type EditKind } from './edits';
import { destinations, truthOf, verdict, type Fate, type Verdict } from './judge-places';
import { atLeast, atMost, figure, prose, seeded, time, type Bench, type Result } from './measure';

const SHARES = [0.005, 0.02, 0.1, 0.3];
const SPANS = 60;

/** Our own texts, made-up prose, and texts of many repeats: a table of readings and a litany. */
function texts(): readonly string[] {
  const page = (file: string): string =>
    readTree(lightTree(fs.readFileSync(`standins/web/sites/${file}`, 'utf8'))).text;
  const random = seeded(77);
  const table = Array.from(
    { length: 400 },
    (_, n) =>
      `Peg ${1 + (n % 40)}, reading ${1 + Math.floor(n / 40)}: ${(20 + random() * 9).toFixed(1)} mm, mud grey, water slack.`,
  ).join('\n');
  const litany = Array.from(
    { length: 220 },
    (_, n) =>
      `${prose(90, random).split('\n')[0]}\n${['The tide comes in, the tide goes out.', 'And nobody asked the mud.', 'So it was written in the blue book.'][n % 3]}`,
  ).join('\n');
  const docs = ['guide', 'operations', 'formats', 'decisions'].map((name) =>
    fs.readFileSync(`docs/${name}.md`, 'utf8').replace(/\n{2,}/g, '\n'),
  );
  return [
    ...docs,
    page('pegs.saltmere.test/handbook.html'),
    page('lagoon.saltmere.test/almyro-livadi.html'),
    page('review.saltmere.test/marsh-that-walks-inland.html'),
    prose(60_000, random).replaceAll('\n\n', '\n'),
    table,
    litany,
  ];
}

/** Sentences, words and stretches across sentences, half of them short. */
function spansOf(text: string, random: () => number): { start: number; end: number }[] {
  const all = sentences(text);
  const stretch = (): { start: number; end: number } => {
    const starts = text.indexOf(' ', Math.floor(random() * (text.length - 300))) + 1;
    const ends = text.indexOf(' ', starts + 3 + Math.floor(random() ** 2 * 220));
    return { start: starts, end: ends > starts ? ends : starts + 4 };
  };
  return Array.from({ length: SPANS }, () =>
    random() < 0.4 ? all[Math.floor(random() * all.length)]! : stretch(),
  ).filter(
    (s) => text.slice(s.start, s.end).trim().length > 2 && text.slice(s.start, s.end).trim().length === s.end - s.start,
  );
}

interface Judged {
  readonly kind: EditKind;
  readonly share: number;
  readonly fate: Fate;
  readonly repeated: boolean;
  readonly verdict: Verdict;
  readonly confidence: number;
}

function judgeAll(): readonly Judged[] {
  const judged: Judged[] = [];
  for (const [t, text] of texts().entries()) {
    const before = indexText(text);
    for (const [s, share] of SHARES.entries())
      for (const [k, kind] of EDITS.entries()) {
        const random = seeded(1000 * t + 100 * s + k);
        const anchors = spansOf(text, random).map((span) => describe(before, span));
        const after = edit(text, share, kind, random);
        const to = destinations(after, text.length);
        const found = locateAll(indexText(after.text), anchors);
        anchors.forEach(({ position, repeats = 1 }, n) => {
          const truth = truthOf(to, position.start, position.end);
          judged.push({
            kind,
            share,
            fate: truth.fate,
            repeated: repeats > 1,
            verdict: verdict(text, position, truth, { found: found[n]!, text: after.text }),
            confidence: found[n]!.confidence,
          });
        });
      }
  }
  return judged;
}

const rate = (all: readonly Judged[], is: (j: Judged) => boolean): number =>
  all.length === 0 ? 100 : (100 * all.filter(is).length) / all.length;
const right = (j: Judged): boolean => j.verdict === 'right';

function table(judged: readonly Judged[]): void {
  const row = (name: string, all: readonly Judged[]): string =>
    `${name.padEnd(22)}${String(all.length).padStart(7)}${(['right', 'imprecise', 'missed', 'wrong place'] as const)
      .map((v) =>
        rate(all, (j) => j.verdict === v)
          .toFixed(2)
          .padStart(12),
      )
      .join('')}`;
  console.log(
    `${'what was done'.padEnd(22)}${'places'.padStart(7)}${['right %', 'imprecise %', 'missed %', 'wrong %'].map((h) => h.padStart(12)).join('')}`,
  );
  for (const kind of EDITS)
    for (const share of SHARES)
      console.log(
        row(
          `${kind}, ${100 * share} %`,
          judged.filter((j) => j.kind === kind && j.share === share),
        ),
      );
  for (const fate of ['kept', 'edited', 'removed', 'torn'] as const)
    for (const repeated of [false, true])
      console.log(
        row(
          `${fate}${repeated ? ', repeated' : ''}`,
          judged.filter((j) => j.fate === fate && j.repeated === repeated),
        ),
      );
}

const figures = (name: string, all: readonly Judged[]): Result[] => [
  atLeast(
    `${name}: kept passages in their right place`,
    rate(
      all.filter((j) => j.fate === 'kept' && !j.repeated),
      right,
    ),
    '%',
    100,
  ),
  atLeast(
    `${name}: edited passages`,
    rate(
      all.filter((j) => j.fate === 'edited' && !j.repeated),
      right,
    ),
    '%',
    98,
  ),
  atLeast(
    `${name}: repeated quotations`,
    rate(
      all.filter((j) => j.repeated && j.fate === 'kept'),
      right,
    ),
    '%',
    98,
  ),
  atLeast(
    `${name}: removed passages told as lost`,
    rate(
      all.filter((j) => j.fate === 'removed'),
      right,
    ),
    '%',
    97,
  ),
  atMost(
    `${name}: wrong places of all`,
    rate(all, (j) => j.verdict === 'wrong place'),
    '%',
    0.3,
  ),
];

/** Right places on edited text, by kind of edit, fate and share. */
export const places: Bench = () => {
  const judged = judgeAll();
  const sure = judged.filter((j) => j.confidence >= SURE);
  table(judged);
  return [
    ...figures(
      'edits of 0.5 and 2 %',
      judged.filter((j) => j.share <= 0.02),
    ),
    ...figures('edits of 0.5 to 30 %', judged),
    atLeast(
      `right place of those given a confidence of ${SURE} or more`,
      rate(sure, (j) => j.verdict !== 'wrong place'),
      '%',
      99,
    ),
  ];
};

const LENGTH = 500_000;
const ANCHORS = 10_000;
const SAMPLE = 100;

function longText(length: number, anchors: number): { anchors: Anchor[]; after: string } {
  const random = seeded(2);
  const before = prose(length, random).replaceAll('\n\n', '\n');
  const index = indexText(before);
  return {
    anchors: Array.from({ length: anchors }, () => {
      const start = Math.floor(random() * (before.length - 200));
      return describe(index, { start, end: start + 20 + Math.floor(random() * 120) });
    }),
    after: edit(before, 0.02, 'mixed', random).text,
  };
}

const best = async (work: () => unknown): Promise<number> =>
  Math.min(await time(work), await time(work), await time(work));

/** 10,000 anchors in a new version of a long text, the index included; the same by a general match-and-patch library. */
export const locate: Bench = async () => {
  const { anchors, after } = longText(LENGTH, ANCHORS);
  const ours = await best(() => locateAll(indexText(after), anchors));
  const general = new DiffMatchPatch();
  general.Match_Distance = LENGTH;
  // It finds at most 32 characters: the beginning and the end of the quotation are sought, as its documentation advises.
  const theirs = await time(() =>
    anchors.slice(0, SAMPLE).forEach(({ quote: { exact }, position: { start, end } }) => {
      const from = general.match_main(after, exact.slice(0, 32), start);
      if (exact.length > 32 && from >= 0) general.match_main(after, exact.slice(-32), from + end - start - 32);
    }),
  );
  const index = indexText(after);
  const bytes = Object.values(index.grams)
    .concat(Object.values(index.folded))
    .reduce((sum: number, part) => sum + ((part as { byteLength?: number }).byteLength ?? 0), 0);
  const [small, large] = [longText(50_000, 1_000), longText(2_000_000, 40_000)];
  const short = await best(() => locateAll(indexText(small.after), small.anchors));
  const long = await best(() => locateAll(indexText(large.after), large.anchors));
  return [
    atMost('locate 10,000 anchors in 500,000 characters with 2 % edited, index included', ours, 'ms', 300),
    atLeast(
      `that, against a general match-and-patch library (${SAMPLE} anchors, reckoned up)`,
      (theirs * ANCHORS) / SAMPLE / ours,
      '×',
      50,
    ),
    figure('index of 500,000 characters', bytes / 1024 / 1024, 'MB'),
    atMost(
      '40 times the text and anchors (50,000 to 2,000,000 characters), of linear growth',
      long / short / 40,
      '×',
      2,
    ),
  ];
};

/** Texts without rhyme or reason take no more than twice the time of ordinary text of their length. */
export const oddTexts: Bench = async () => {
  const work = (text: string) => (): unknown => {
    const index = indexText(text);
    const anchors = Array.from({ length: 500 }, (_, n) => describe(index, { start: n * 1000, end: n * 1000 + 60 }));
    return locateAll(indexText(text.slice(300)), anchors);
  };
  const ordinary = work(prose(LENGTH + 2000, seeded(4)).slice(0, LENGTH));
  await time(ordinary);
  const results: Result[] = [];
  for (const [name, text] of Object.entries({
    'equal characters': 'a'.repeat(LENGTH),
    NUL: '\0'.repeat(LENGTH),
    'lone surrogates': '\ud800'.repeat(LENGTH),
    'characters of two units': '𝒳𠀀𝓪😀'.repeat(LENGTH / 8),
    'no spaces': Array.from({ length: LENGTH }, (_, i) => String.fromCharCode(97 + ((i * i * 7 + i * 3) % 26))).join(
      '',
    ),
    'one line again and again': 'The same line again and again.\n'.repeat(LENGTH / 31),
  })) {
    results.push(
      atMost(
        `500 anchors in ${name}, of the time for ordinary text`,
        (await best(work(text))) / (await best(ordinary)),
        '×',
        2,
      ),
    );
  }
  return results;
};
