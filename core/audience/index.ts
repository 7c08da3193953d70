export { ONLY_ME, audienceWords, replyAudience, type Audience } from './audience';
