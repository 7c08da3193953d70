export { noticePath, noticeWords } from './notice';
