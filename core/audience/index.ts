export {
  ONLY_ME,
  allOf,
  answerAudience,
  audienceWords,
  type Audience,
  type ForClass,
  type NamedGroup,
} from './audience';
