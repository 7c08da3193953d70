import type { SourceKey } from './marks';

/** A page with editions: the first is kept and annotated, the second kept beside it, the newest is there to be kept. */
export const SLUICE = 'harbour.saltmere.test/sluice-nine';

/** What is kept in the demo: by whom, from where, and for which courses. */
export const SOURCES: readonly {
  key: SourceKey;
  by: string;
  from: string;
  daysAgo: number;
  tags: string[];
  classes: ('A' | 'B')[];
}[] = [
  {
    key: 'pegs',
    by: 'aldous',
    from: 'http://pegs.saltmere.test/handbook',
    daysAgo: 17,
    tags: ['fieldwork', 'method'],
    classes: ['A', 'B'],
  },
  { key: 'lavender', by: 'ines', from: 'sea-lavender.md', daysAgo: 15, tags: ['plants'], classes: [] },
  {
    key: 'keeper',
    by: 'aldous',
    from: 'last-keeper.txt',
    daysAgo: 14,
    tags: ['sluices', 'oral-history'],
    classes: ['B'],
  },
  {
    key: 'marsh',
    by: 'aldous',
    from: 'http://review.saltmere.test/marsh-that-walks-inland',
    daysAgo: 12,
    tags: ['accretion', 'week4'],
    classes: ['A', 'B'],
  },
  {
    key: 'creek',
    by: 'aldous',
    from: 'http://creek.saltmere.test/five-drawings',
    daysAgo: 9,
    tags: ['fieldwork'],
    classes: ['B'],
  },
  { key: 'sluice', by: 'ines', from: `http://${SLUICE}`, daysAgo: 11, tags: ['sluices', 'retreat'], classes: ['B'] },
  {
    key: 'packet',
    by: 'aldous',
    from: 'http://packet.saltmere.test/who-pays',
    daysAgo: 8,
    tags: ['retreat'],
    classes: ['B'],
  },
  {
    key: 'lagoon',
    by: 'ines',
    from: 'http://lagoon.saltmere.test/almyro-livadi',
    daysAgo: 5,
    tags: ['elsewhere'],
    classes: [],
  },
  { key: 'walk', by: 'aldous', from: 'walk-along-the-bank.ogg', daysAgo: 6, tags: ['oral-history'], classes: ['B'] },
  { key: 'booklet', by: 'ines', from: 'walkers-booklet.epub', daysAgo: 6, tags: ['oral-history'], classes: [] },
  {
    key: 'report',
    by: 'aldous',
    from: 'http://survey.saltmere.test/state-of-the-marsh-2025.pdf',
    daysAgo: 4,
    tags: ['accretion', 'week5'],
    classes: ['A', 'B'],
  },
  { key: 'readings', by: 'ines', from: 'peg-readings-2025.csv', daysAgo: 3, tags: ['method'], classes: [] },
  { key: 'dawn', by: 'ines', from: 'sluice-nine-at-dawn.png', daysAgo: 3, tags: ['sluices'], classes: [] },
  {
    key: 'thread',
    by: 'ines',
    from: 'http://posts.saltmere.test/line-e',
    daysAgo: 2,
    tags: ['fieldwork'],
    classes: [],
  },
  {
    key: 'dredger',
    by: 'ines',
    from: 'http://harbour.saltmere.test/dredger',
    daysAgo: 2,
    tags: ['dredging'],
    classes: [],
  },
  {
    key: 'light',
    by: 'aldous',
    from: 'http://studio.saltmere.test/kept-light',
    daysAgo: 2,
    tags: [],
    classes: [],
  },
];

/** What Ines has read, as a share of each text from its beginning, and where it stands on her shelf. */
export const INES_READ: readonly (readonly [SourceKey, 'reading' | 'finished', number])[] = [
  ['lavender', 'finished', 1],
  ['creek', 'reading', 0.72],
  ['pegs', 'reading', 0.41],
  ['keeper', 'reading', 0.2],
  ['marsh', 'reading', 0.34],
];
