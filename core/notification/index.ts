export { noticeAbout, noticePath, noticeWords } from './notice';
