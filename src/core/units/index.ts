export { parseAngle } from './angle-parser';
export { formatAngle, formatArea, formatLength, formatPlusMinus, formatSlope, formatVolume } from './format';
export { parseLength, parseSize, type WrittenLength } from './length-parser';
export { formatRatio, parseRatio } from './ratio-parser';
export { findDrawingRatio } from './drawing-ratios';
export { findUnitSlip, type UnitSlip } from './unit-slip';
export { MILLIMETRES, MM_PER_INCH, type Units, type UnitStyle } from './unit';
