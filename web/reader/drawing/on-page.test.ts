import { describe, expect, test } from '@jest/globals';
import { boxAround, shapePoints, type InkPoint, type Strokes } from '@avrelle/core/ink';
import { PLAIN_NOTE, STARTING_LEGEND } from '@avrelle/core/legend';
import type { Annotation } from '@avrelle/core/wire';
import type { Box, Extent, PageAdapter, StreamRange } from '../../page/page-frame';
import type { Thread } from '../model/thread';
import { boxOfSpot } from '../../page/spot-box';
import { changing } from './changing';
import { layDrawings, type Laid } from './laid';
import { tieToPage, type TiedSpot } from './tie-to-page';

const TEXT = 'the marsh keeps its height above the tide only by catching mud from every spring tide';
const LETTER = 10;
const LINE = 30;
const HEIGHT = 20;
const LEFT = 40;
const PICTURE: Box = { left: 100, top: 400, width: 200, height: 100 };

/** A page of letters of one width, so many to a line; below them one picture. */
function pageOf(letters: number, room = 800, text = TEXT): PageAdapter & { asked: number } {
  const page = {
    asked: 0,
    stream: { text, outline: [{ start: 0, end: text.length, role: 'paragraph', path: '0' }] },
    window: { innerWidth: room },
    shownAt: (x: number, y: number) => ({ x, y }),
    boxes: ({ start, end }: StreamRange): Box[] => {
      page.asked++;
      const made: Box[] = [];
      for (let at = start; at < end;) {
        const line = Math.floor(at / letters);
        const until = Math.min(end, (line + 1) * letters);
        made.push({
          left: LEFT + (at % letters) * LETTER,
          top: 10 + line * LINE,
          width: (until - at) * LETTER,
          height: HEIGHT,
        });
        at = until;
      }
      return made;
    },
    holder: (on: { picture?: string }) => ('picture' in on ? PICTURE : undefined),
    holderAt: (x: number, y: number) =>
      x >= PICTURE.left && x < PICTURE.left + PICTURE.width && y >= PICTURE.top && y < PICTURE.top + PICTURE.height
        ? {
            on: { picture: 'a'.repeat(64) },
            box: PICTURE,
            element: { parentElement: null, closest: () => null } as unknown as Element,
          }
        : undefined,
  };
  return page as unknown as PageAdapter & { asked: number };
}
const blocksOf = (page: PageAdapter): Extent[] => {
  const all = page.boxes({ start: 0, end: page.stream.text.length });
  return [{ block: page.stream.outline[0]!, top: all[0]!.top, bottom: all.at(-1)!.top + HEIGHT }];
};
const at = (words: string): StreamRange => {
  const start = TEXT.indexOf(words);
  return { start, end: start + words.length };
};
const LOOK = { tool: 'line', colour: 'ink', width: 2 } as const;
const under = (page: PageAdapter, words: string): InkPoint[] => {
  const [box] = page.boxes(at(words));
  return shapePoints('line', [box!.left, box!.top + 22], [box!.left + box!.width, box!.top + 22]);
};
const threadOf = ({ spot, range }: TiedSpot, more: Partial<Annotation> = {}): Thread => ({
  range,
  replies: [],
  root: {
    id: 'x',
    kind: PLAIN_NOTE,
    note: '',
    anchor: { quote: { exact: TEXT.slice(range.start, range.end), prefix: '', suffix: '' }, position: range, spot },
    ...more,
  } as Annotation,
});
const tie = (page: PageAdapter, strokes: Strokes, look: Parameters<typeof tieToPage>[2] = LOOK): TiedSpot =>
  tieToPage({ adapter: page, blocks: blocksOf(page), language: 'en' }, strokes, look)!;
const lay = (page: PageAdapter, thread: Thread): Laid => layDrawings(page, [thread], new Map())[0]!;

describe('what is drawn on a page', () => {
  const wide = pageOf(90);
  const made = tie(wide, [under(wide, 'height above')]);
  test('is tied to the words it goes along, its width to their height', () => {
    expect([TEXT.slice(made.range.start, made.range.end), made.spot.tied.to, made.spot.width]).toEqual([
      'height above',
      'words',
      0.1,
    ]);
  });
  test('stands where it was drawn, and under the same words of another page', () => {
    expect(boxAround(lay(wide, threadOf(made)).strokes)).toEqual(boxAround([under(wide, 'height above')]));
    const narrow = pageOf(26);
    const drawn = lay(narrow, threadOf(made));
    expect(drawn.strokes.map((s) => Math.round(boxAround([s])!.top))).toEqual(
      narrow.boxes(at('height above')).map((b) => b.top + 22),
    );
  });
  test('on a picture is tied to that, wherever it ends', () => {
    const { spot } = tie(wide, [shapePoints('arrow', [150, 450], [500, 300])], { ...LOOK, tool: 'arrow' });
    expect(spot.tied).toMatchObject({ to: 'picture', on: { picture: 'a'.repeat(64) } });
    expect([spot.width, spot.tied.strokes[0]![0]]).toEqual([10, [0.25, 0.5, 0.5]]);
  });
  test('on a page of a PDF is tied to that; for other windows to the words, where there are some', () => {
    const on = { page: 3 };
    const holder = {
      on,
      box: { left: 0, top: 0, width: 900, height: 1_200 },
      element: { parentElement: null, closest: () => null },
    };
    const pdf = { ...wide, holderAt: () => holder, document: {} } as unknown as PageAdapter;
    const tied = (y: number, wordsOverPages: boolean) =>
      tieToPage({ adapter: pdf, blocks: blocksOf(wide), language: 'en', wordsOverPages }, [[[300, y, 0.5]]], LOOK)?.spot
        .tied.to;
    expect([tied(20, true), tied(20, false), tied(900, true)]).toEqual(['words', 'picture', 'picture']);
  });
  test('has nothing to keep to where there are no words', () =>
    expect(tieToPage({ adapter: wide, blocks: [], language: 'en' }, [[[5, 5, 0.5]]], LOOK)).toBeUndefined());
  test('in a block as long as a file asks for the words near it alone', () => {
    const file = pageOf(90, 800, `${TEXT} `.repeat(3_000));
    const [box] = file.boxes({ start: 90_000, end: 90_001 });
    const blocks = blocksOf(file);
    file.asked = 0;
    const made = tieToPage({ adapter: file, blocks, language: 'en' }, [[[box!.left, box!.top + 22, 0.5]]], LOOK)!;
    expect([Math.abs(made.range.start - 90_000) < 10, file.asked < 300]).toEqual([true, true]);
  });
  test('far from all words keeps to the nearest', () =>
    expect(
      tie(wide, [
        [
          [600, 300, 0.5],
          [640, 310, 0.5],
        ],
      ]).range.end,
    ).toBeGreaterThan(0));
});

describe('laying out', () => {
  const page = pageOf(90);
  const bracket: InkPoint[] = shapePoints('line', [2, 12], [2, 28]);
  const left = tie(page, [bracket]);
  test('moves what would stand beyond the edge onto the page', () => {
    expect(boxAround(lay(page, threadOf(left)).strokes)!.left).toBe(4);
    const right = tie(page, [shapePoints('line', [1_000, 12], [1_000, 28])]);
    const slim = lay(pageOf(90, 600), threadOf(right));
    expect(boxAround(slim.strokes)!.left).toBe(596);
  });
  test('asks the browser once for as long as the layout stands, again for another range', () => {
    const known = new Map();
    const made = tie(page, [under(page, 'height above')]);
    const thread = threadOf(made);
    layDrawings(page, [thread], known);
    const before = page.asked;
    expect(layDrawings(page, [{ ...thread }], known)).toHaveLength(1);
    expect(page.asked).toBe(before);
    layDrawings(page, [{ ...thread, range: { start: made.range.start - 4, end: made.range.end - 4 } }], known);
    expect(page.asked).toBeGreaterThan(before);
  });
  test('leaves out what was deleted, what is not drawn, and words that are not there any more', () => {
    const made = tie(page, [under(page, 'height above')]);
    const thread = threadOf(made);
    expect(
      layDrawings(
        page,
        [
          threadOf(made, { deleted: true }),
          { ...thread, root: { ...thread.root, anchor: { ...thread.root.anchor!, spot: { type: 'whole' } } } },
        ],
        new Map(),
      ),
    ).toEqual([]);
    expect(boxOfSpot(page, made.spot, { start: made.range.start, end: made.range.start + 6 })!.width).toBeCloseTo(
      60,
      0,
    );
  });
  test('words on the page are its note, a sign that of its kind; words that were emptied can still be found', () => {
    const words = tie(page, [[[100, 12, 0.5]]], { tool: 'text', colour: 'woad', width: 20 });
    expect(lay(page, threadOf(words, { note: 'why **so**\nlate' })).lines).toEqual(['why so', 'late']);
    expect(lay(page, threadOf(words)).lines).toEqual(['…']);
    expect(
      lay(page, threadOf({ ...words, spot: { ...words.spot, tool: 'sign' } }, { kind: STARTING_LEGEND[4]! })).lines,
    ).toEqual([STARTING_LEGEND[4]!.sign]);
  });
});

describe('changing what was drawn', () => {
  const page = pageOf(90);
  const drawing = lay(page, threadOf(tie(page, [under(page, 'height above')])));
  const calls: unknown[] = [];
  const marks = {
    move: (...call: unknown[]) => void calls.push(call),
    passage: (range: StreamRange) => ({ versionId: 'v', anchor: range }) as never,
    changeAll: (...call: unknown[]) => {
      calls.push(call);
      return Promise.resolve({ undo: () => undefined });
    },
  };
  const { redraw, rubOut, restyle } = changing(marks, (strokes, look) =>
    tieToPage({ adapter: page, blocks: blocksOf(page), language: 'en' }, strokes, look),
  );
  test('moved, it is tied to the words it lies at by then', () => {
    redraw(drawing, [under(page, 'catching mud')]);
    expect(calls.pop()).toMatchObject([{ id: 'x' }, at('catching mud'), { tool: 'line', width: 0.1 }]);
  });
  test('another width is reckoned in its own units', () => {
    restyle(drawing, { width: 6, colour: 'woad' });
    expect(calls.pop()).toMatchObject([
      { id: 'x' },
      at('height above'),
      { colour: 'woad', width: expect.closeTo(0.3) },
    ]);
  });
  test('rubbed out wholly it is deleted, in part it keeps what is left; both are one step, nothing is none', () => {
    rubOut(
      new Map([
        [drawing, []],
        [{ ...drawing }, [under(page, 'height')]],
      ]),
    );
    expect(calls.pop()).toMatchObject([
      [
        [{ id: 'x' }, { deleted: true }],
        [{ id: 'x' }, { passage: { anchor: at('height') } }],
      ],
      'rubbed out',
    ]);
    rubOut(new Map());
    expect(calls).toEqual([]);
  });
});
