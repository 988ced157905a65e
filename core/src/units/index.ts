export { type LengthUnit, formatLength, parseLength } from './length.js';
export { QUANTITIES, type Quantity, formatQuantity, parseQuantity } from './quantity.js';
export { formatFigure, readTyped } from './typed.js';
export { GAUGE_KINDS, type Gauge, checkDoubt, readingUncertainty } from './gauge.js';
