import { describe, expect, test } from '@jest/globals';
import { Parser, type Node } from 'commonmark';
import { parse } from 'yaml';
import { escapeMarkdown, fileNameOf, studyNotes, toWebAnnotation, type TakenMark } from './index';
import { describe as describeRange, indexText, toSelectors } from '../anchor';
import { STARTING_LEGEND } from '../legend';
import type { Annotation } from '../wire';

const source = {
  title: 'Sheep: a "dispute" #1',
  author: 'Odile Farrant',
  site: 'Saltmere Estuary Review',
  address: 'http://review.saltmere.test/sheep?a=1&b=2',
  publishedAt: '2026-10-02T00:00:00Z',
  keptAt: '2026-11-09T10:00:00Z',
  tags: ['accretion', 'essay/opening'],
};
const mark = (start: number, quote: string, more: Partial<TakenMark> = {}): TakenMark => ({
  start,
  kind: STARTING_LEGEND[0]!,
  quote,
  note: '',
  tags: [],
  author: 'Ines Kestle',
  replies: [],
  what: '',
  address: 'http://avrelle.test/source/s?at=a',
  ...more,
});

function texts(markdown: string, type: Node['type']): string[] {
  const walker = new Parser().parse(markdown).walker();
  const found: string[] = [];
  let depth = 0;
  for (let step = walker.next(); step; step = walker.next()) {
    if (step.node.type === type) {
      depth += step.entering ? 1 : -1;
      if (step.entering) found.push('');
    } else if (depth > 0 && step.entering && (step.node.literal || step.node.type === 'softbreak'))
      found[found.length - 1] += step.node.literal ?? '\n';
  }
  return found;
}

describe('study notes, read back by a YAML and a CommonMark library', () => {
  const quotes = [
    'Between *1994* and <2024> the gauge_at_Cobb’s rose',
    '1. Not a list',
    '# not a heading',
    '- nor this',
    'two\nlines',
  ];
  const out = studyNotes(
    source,
    quotes.map((q, i) => mark((9 - i) * 10, q)),
    '2026-11-23T09:00:00Z',
    'Ines Kestle',
  );
  const [, front, body] = out.split(/^---\n/m);

  test('the front matter says what the source is', () => {
    expect(parse(front!)).toEqual({
      title: source.title,
      author: source.author,
      site: source.site,
      address: source.address,
      published: '2026-10-02',
      kept: '2026-11-09',
      taken: '2026-11-23',
      tags: source.tags,
    });
  });

  test('quotations come back to the letter, in document order', () => {
    expect(texts(body!, 'block_quote').map((q) => q.replace(/(?<=two)/, '\n'))).toEqual([...quotes].reverse());
  });

  test('the title is the heading', () => {
    expect(texts(body!, 'heading')).toEqual([source.title]);
  });

  test('notes, tags, other authors and replies stand under their quotation', () => {
    const one = studyNotes(
      source,
      [
        mark(0, 'q', {
          note: 'My **note**',
          tags: ['essay'],
          author: 'Tomas Rell',
          replies: [{ author: 'Dr Aldous', note: 'Good.' }],
        }),
      ],
      '2026-11-23',
      'Ines Kestle',
    );
    expect(one).toContain(
      '> q\n\n§ [*Claim*](http://avrelle.test/source/s?at=a) · Tomas Rell\n\nMy **note**\n\n#essay\n\n- **Dr Aldous:** Good.',
    );
  });
});

test('markdown punctuation is made literal', () => {
  expect(escapeMarkdown('a*b_c [d](e) `f` 1. x')).toBe('a\\*b\\_c \\[d\\](e) \\`f\\` 1. x');
});

test('file names keep letters of any script and never run empty', () => {
  expect(fileNameOf('The Marsh: That/Walks  Inland!')).toBe('the-marsh-that-walks-inland');
  expect(fileNameOf('Το αλμυρό λιβάδι')).toBe('το-αλμυρό-λιβάδι');
  expect(fileNameOf('???')).toBe('source');
});

describe('W3C Web Annotation Data Model (Recommendation, 2017), section 3.1 and 4.2', () => {
  const annotation: Annotation = {
    id: '0193a1b2-0000-7000-8000-000000000001',
    sourceId: 's',
    versionId: 'v',
    author: { id: '0193a1b2-0000-7000-8000-000000000002', name: 'Ines' },
    kind: STARTING_LEGEND[0]!,
    note: 'n',
    tags: ['t'],
    anchor: { quote: { exact: 'marsh', prefix: 'the ', suffix: ' dies' }, position: { start: 4, end: 9 } },
    place: null,
    classIds: [],
    rootId: null,
    parentId: null,
    createdAt: '2026-11-09T10:00:00Z',
    updatedAt: '2026-11-09T10:00:00Z',
    version: 1,
  };
  const text = 'the marsh dies';
  const index = indexText(text);
  const out = toWebAnnotation(
    annotation,
    { address: source.address, id: 's', title: 't' },
    toSelectors(index, describeRange(index, { start: 4, end: 9 })),
  );

  test('has the context, an IRI, the type and at least one target', () => {
    expect(out['@context']).toBe('http://www.w3.org/ns/anno.jsonld');
    expect(out.id).toMatch(/^[a-z][a-z0-9+.-]*:\S+$/);
    expect(out.type).toBe('Annotation');
    expect(out.target).toMatchObject({ source: source.address });
  });

  test('its selectors carry what sections 4.2.4 and 4.2.5 require', () => {
    const { selector } = out.target as { selector: Record<string, unknown>[] };
    expect(selector[0]).toEqual({ type: 'TextQuoteSelector', exact: 'marsh', prefix: 'the ', suffix: ' dies' });
    expect(selector[1]).toEqual({ type: 'TextPositionSelector', start: 4, end: 9 });
  });

  test('a reply targets the annotation it answers', () => {
    const reply = toWebAnnotation(
      { ...annotation, rootId: 'r', parentId: 'p', anchor: null },
      { address: null, id: 's', title: 't' },
      [],
    );
    expect(reply).toMatchObject({ motivation: 'replying', target: 'urn:uuid:p' });
  });
});
