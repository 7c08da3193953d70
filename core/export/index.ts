export {
  studyNotes,
  escapeMarkdown,
  fileNameOf,
  type TakenMark,
  type TakenReply,
  type TakenSource,
} from './study-notes';
export { DRAWING, toWebAnnotation } from './web-annotation';
export { bookmarksFile, opmlFile, type Listed } from './lists';
export { walkthroughMarkdown } from './walkthrough';
export type { TakenStep } from './walkthrough';
