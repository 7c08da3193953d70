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
