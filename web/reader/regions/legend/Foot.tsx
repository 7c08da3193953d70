import { useReader } from '../../session/reader-context';
import { DrawingStrip } from './DrawingStrip';
import { Legend } from './Legend';

/** At the foot: the Legend, or the drawing tools while one draws. */
export const Foot = () => (useReader((s) => s.tool === 'draw') ? <DrawingStrip /> : <Legend />);
