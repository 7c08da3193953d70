export { ONLY_ME, answerAudience, audienceWords, type Audience, type ForClass } from './audience';
