export { parseMarkdown, pricesAsWords } from './parse';
export { plainWords } from './plain-words';
export { quotation } from './quotation';
export { renameTagInNote } from './rename-tag';
