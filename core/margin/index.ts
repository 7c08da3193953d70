export { placeNotes, type Wanted } from './place-notes';
