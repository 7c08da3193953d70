export { addressesIn } from './addresses';
export { citation, type Cited } from './citation';
export { suggestTags, type UsedTag } from './suggest-tags';
