export { addressesIn } from './addresses';
export { citation, type Cited } from './citation';
