export {
  LINK_TYPES,
  linkAddress,
  linksIn,
  outward,
  parseLinkAddress,
  tagsIn,
  type LinkType,
  type NoteLink,
} from './note';
