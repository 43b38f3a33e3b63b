export { arrange, type Arrangement } from './arrangement';
export { type Boundary } from './boundary';
export { combine, type Combining } from './combine';
export { listNeighbours } from './cuts';
export { measureMoved, type RegionMeasure } from './moved-region';
export { listRegions, wellInside, type Region } from './regions';
export { offsetClosed, offsetOpen, strip, type OffsetLimits, type StripWidth } from './offset';
export { type CornerStyle, type EndStyle } from './trail';
