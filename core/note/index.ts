export { LINK_TYPES, linkAddress, linksIn, outward, parseLinkAddress, plainWords, tagsIn, type LinkType, type NoteLink } from './note';
