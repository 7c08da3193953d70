import type { ClassId, GroupId, VersionId } from '@avrelle/core/wire';
import type { Anchor } from '@avrelle/core/anchor';
import type { KindCode } from '@avrelle/core/legend';

/** What of an annotation its author can change. */
export interface Fields {
  readonly kind?: KindCode;
  readonly note?: string;
  readonly tags?: readonly string[];
  readonly classIds?: readonly ClassId[];
  readonly teachersOnly?: boolean;
  readonly held?: boolean;
  readonly groupIds?: readonly GroupId[];
  readonly deleted?: boolean;
  /** Other words of its source. */
  readonly passage?: { readonly versionId: VersionId; readonly anchor: Anchor };
  /** Where its author says it belongs in the newest version; null to go by what was found. */
  readonly place?: { readonly start: number; readonly end: number } | null;
}
