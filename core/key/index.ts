export { KEY, KIND_CODES, PLAIN_NOTE, kindOf, type Kind, type KindCode, type Line, type Pigment } from './key';
