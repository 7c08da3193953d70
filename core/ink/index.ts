export {
  isColour,
  isDrawnSpot,
  TOOLS,
  type DrawnSpot,
  type InkBox,
  type InkPoint,
  type Tied,
  type TiedPoint,
  type Tool,
  type WordBox,
} from './drawing';
export {
  boxAround,
  erase,
  isNear,
  layOut,
  movedBy,
  moveOverLines,
  tieToPicture,
  tieToWords,
  type LaidOut,
  type Strokes,
  type TiedInk,
} from './tie';
export { arrowHead, shapePoints, simplify } from './shapes';
export { toSvg } from './svg';
