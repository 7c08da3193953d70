/** The shapes that cross the network, with the schemas of what is sent. `core/api` says which endpoint takes and gives what. */
export { UUID_V7, idSchema } from './ids';
export type {
  PersonId,
  SourceId,
  VersionId,
  AnnotationId,
  ClassId,
  GroupId,
  LegendOwnerId,
  CollectionId,
  JobId,
  BatchId,
  WalkthroughId,
  StudyNoteId,
  CardId,
  FeedId,
  DraftId,
} from './ids';
export type { Problem } from './problem';
export { PEOPLE_AT_ONCE, READINGS_AT_ONCE } from './limits';
export {
  signInSchema,
  signUpSchema,
  passwordChangeSchema,
  nameChangeSchema,
  TOKEN_SCOPES,
  TOKEN_DAYS,
  tokenSchema,
} from './account';
export type { SignIn, SignUp, Person, Me, Welcome, SamplePerson } from './account';
export {
  READING_STATES,
  STATE_WORDS,
  STATE_NAMES,
  SOURCE_KINDS,
  KIND_WORDS,
  AMOUNTS,
  AMOUNT_WORDS,
  WIDTHS,
  TAG,
  NO_TAG,
} from './source-words';
export type { ReadingState, SourceKind, Amount } from './source-words';
export {
  tagsSchema,
  keepSchema,
  uploadFieldsSchema,
  keepDraftSchema,
  sourcePatchSchema,
  sourceTagsSchema,
  shelfSchema,
  pictureEditSchema,
} from './source';
export type {
  SourceFacts,
  Draft,
  KeptBefore,
  Ease,
  KeepRequest,
  ShelfPatch,
  StrandMark,
  Strand,
  ClassLabel,
  Excerpt,
  SourceRow,
  SourceDetail,
  SourceText,
} from './source';
export { placeSchema, againSchema, retrySchema } from './version';
export type { PlacePut, VersionRow, Comparison, BroughtIn } from './version';
export { ENCODINGS, isEncoding } from './encodings';
export type { Encoding } from './encodings';
export { kindCodeSchema, legendPutSchema, replaceKindSchema } from './legend';
export type { LegendPut, OwnedLegend, Legends, Replaced } from './legend';
export {
  anchorSchema,
  LONGEST_NOTE,
  annotationPutSchema,
  replyPutSchema,
  annotationPatchSchema,
  annotationChangesSchema,
} from './annotation';
export type {
  AnnotationPut,
  AnnotationPatch,
  ReplyPut,
  AnnotationPlace,
  Annotation,
  HeldIn,
  InGroup,
  HiddenIn,
} from './annotation';
export type { Linked, StoredPicture } from './note';
export { TINTS, classPutSchema, joinSchema, readingsSchema, CLASS_ROLES, roleChangeSchema } from './class';
export type { ClassPut, ClassRole, ClassRow, Member, ClassDetail } from './class';
export {
  THREAD_FILTERS,
  THREAD_SORTS,
  endorseSchema,
  hideSchema,
  reportSchema,
  seeThreadsSchema,
  starSchema,
} from './discussion';
export type { ClassNote } from './class-note';
export type { Report, ThreadFilter, ThreadPage, ThreadRow, ThreadSort } from './discussion';
export {
  JOINING,
  LINK_DAYS,
  MOST_ON_ROSTER,
  ROSTER_STATES,
  YEAR_IN_WEEKS,
  archivedSchema,
  joiningPutSchema,
  joinLinkSchema,
  letInSchema,
  linkPutSchema,
  nextClassSchema,
  rosterSchema,
} from './joining';
export type {
  ClassJoining,
  Invitation,
  Joining,
  JoinLink,
  JoinRequest,
  LeftOutRow,
  LinkPut,
  MyRequest,
  NextClass,
  RosterPerson,
  RosterPreview,
  RosterRow,
  RosterState,
} from './joining';
export { MOST_GROUPS, groupsPutSchema } from './groups';
export type { GroupsPut } from './groups';
export { MOST_HELD, annotationIdsSchema, releaseSchema } from './held';
export type { HeldNote, Release } from './held';
export { MOST_CHOICES, questionPutSchema, responsePutSchema } from './question';
export type {
  AskedClass,
  Question,
  QuestionPut,
  QuestionResponse,
  QuestionResults,
  QuestionsLeft,
  ResponsePut,
  StudentResponse,
} from './question';
export {
  BEAT_EVERY,
  BEAT_MISSED,
  isShowing,
  LIVE_CLOSED,
  LIVE_MESSAGES,
  liveStartSchema,
  LONGEST_LIVE_MESSAGE,
} from './live';
export type {
  Follower,
  Following,
  FollowingMessage,
  Live,
  LiveInk,
  LiveMessage,
  LiveNow,
  LivePlace,
  LiveStart,
  LiveTold,
  ShowingMessage,
  Stroke,
} from './live';
export { MOST_STEPS, SEEN_BY_CLASS, walkthroughCopySchema, walkthroughPutSchema } from './walkthrough';
export type {
  SeenByClass,
  StepNote,
  Walkthrough,
  WalkthroughPut,
  WalkthroughRow,
  WalkthroughStep,
} from './walkthrough';
export {
  OTHERS_SEEN,
  assignmentPutSchema,
  publishSchema,
  shownSchema,
  extensionSchema,
  assignmentKey,
} from './assignment';
export type {
  OthersSeen,
  AssignmentPut,
  AssignmentFields,
  Published,
  PublishAgain,
  NamedExpectation,
  Assignment,
  AssignmentProgress,
  StudentProgress,
  AssignmentDetail,
  WeekProgress,
  ClassAssignments,
} from './assignment';
export {
  MAY,
  collectionPutSchema,
  collectionOrderSchema,
  collectionSourcesSchema,
  TAKE_OUT_AS,
  exportSchema,
  savedSearchSchema,
  orderSchema,
  sourceChangesSchema,
  tagChangeSchema,
  tagTintSchema,
  LONGEST_TOPIC,
  topicPutSchema,
} from './library';
export type {
  LibraryOutline,
  TagCount,
  CollectionPut,
  CollectionOrder,
  CollectionRow,
  CollectionDetail,
  SavedSearch,
  SourceChange,
  SourceChangesMade,
  TagPreview,
  TagPair,
  RelatedTag,
  TopicPage,
  TopicNews,
  DeletedSource,
} from './library';
export { SOURCE_SORTS, ANNOTATION_SORTS, ANNOTATION_GROUPINGS } from './find';
export type {
  SourceSort,
  AnnotationGrouping,
  AnnotationSort,
  Passage,
  FoundSource,
  SourcePage,
  AnnotationHit,
  AnnotationGroup,
  AnnotationPage,
  DeskNotice,
  Desk,
} from './find';
export { MOST_ADDRESSES, batchSchema, batchPatchSchema, feedSchema, settleSchema } from './gather';
export type { Batch, Feed, Arrival, Intake } from './gather';
export type { JobState, Job } from './job';
export {
  DIGEST_EVERY,
  NOTICED,
  NOTIFICATION_KINDS,
  followSchema,
  isZone,
  muteSchema,
  noticedOf,
  notificationSettingsSchema,
} from './notification';
export type {
  DigestEvery,
  Follows,
  Noticed,
  NotificationKind,
  Notifications,
  NotificationSettings,
} from './notification';
export { JOINS, LONGEST_STUDY_NOTE, excerptsPutSchema, studyNotePatchSchema, studyNotePutSchema } from './study-note';
export type {
  ExcerptsPut,
  Joins,
  StudyCandidate,
  StudyCandidates,
  StudyExcerpt,
  StudyNote,
  StudyNotePatch,
  StudyNotePut,
  StudyNoteRow,
} from './study-note';
export {
  MOST_CARDS,
  PASSAGE_STATES,
  cardAnswerSchema,
  cardPatchSchema,
  cardPutSchema,
  cardTableSchema,
  restSchema,
  reviewWishSchema,
} from './card';
export type {
  CardAnswer,
  CardPage,
  CardPassage,
  CardPatch,
  CardPut,
  CardRow,
  CardTableResult,
  PassageBlock,
  PassageState,
  Review,
  ReviewCard,
  ReviewStatistics,
  ReviewWish,
} from './card';
export { FEWEST_TOLD, giveCardsSchema } from './class-card';
export type { ClassCard, ClassCardHow, ClassCards, GiveCards, NamedAnswers } from './class-card';
export type { StreamEvent } from './stream-event';
