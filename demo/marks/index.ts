import { FILES } from './files';
import { FOR_A_GROUP, FOR_TEACHERS, HELD } from './held';
import type { DemoMark } from './mark';
import { MARSH } from './marsh';
import { PAGES } from './pages';

export type { AudienceKey, DemoMark, SourceKey } from './mark';
/** All that is marked in the demo, word for word as it stands in the sources. */
export const MARKS: readonly DemoMark[] = [...MARSH, ...PAGES, ...FILES, ...HELD, ...FOR_A_GROUP, FOR_TEACHERS];
