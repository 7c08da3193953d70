export { freeLook, KEY, LINES, lookName, LOOKS, MOST_KINDS, moveKind, PIGMENTS, PLAIN_NOTE, startingKind, type Kind, type KindCode, type Line, type Look, type Pigment } from './key';
