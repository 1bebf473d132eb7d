/** What a unit measures. A value converts only within its own dimension. */
export type Dimension =
  'length' | 'torque' | 'mass' | 'force' | 'pressure' | 'temperature' | 'volume' | 'time' | 'voltage';

interface UnitDefinition {
  dimension: Dimension;
  /** SI value = value × factor + offset. SI here: m, N·m, kg, N, Pa, K, m³, s, V. */
  factor: number;
  offset?: number;
  /** As it is written after a figure. */
  label: string;
  /** As people write it: in lower case, its parts joined by hyphens. */
  spellings: readonly string[];
}

const POUND_FORCE = 4.4482216152605;
const INCH = 0.0254;

/**
 * Units of the trade. Factors: NIST SP 811, appendix B.8; the inch, mile, pound and pound-force are
 * exact there, the quart is the US liquid quart (57.75 in³, exact).
 */
export const units = {
  mm: {
    dimension: 'length',
    factor: 1e-3,
    label: 'mm',
    spellings: ['mm', 'millimetre', 'millimetres', 'millimeter', 'millimeters'],
  },
  um: { dimension: 'length', factor: 1e-6, label: 'µm', spellings: ['um', 'µm', 'μm', 'micron', 'microns'] },
  in: { dimension: 'length', factor: INCH, label: 'in', spellings: ['in', 'ins', 'inch', 'inches', '"'] },
  thou: {
    dimension: 'length',
    factor: INCH / 1000,
    label: 'thou',
    spellings: ['thou', 'thous', 'thousandth', 'thousandths', 'mil', 'mils'],
  },
  km: {
    dimension: 'length',
    factor: 1000,
    label: 'km',
    spellings: ['km', 'kms', 'kilometre', 'kilometres', 'kilometer', 'kilometers'],
  },
  mi: { dimension: 'length', factor: 1609.344, label: 'mi', spellings: ['mi', 'mile', 'miles'] },
  Nm: {
    dimension: 'torque',
    factor: 1,
    label: 'N·m',
    spellings: ['nm', 'n-m', 'newton-metre', 'newton-metres'],
  },
  'lbf-ft': {
    dimension: 'torque',
    factor: POUND_FORCE * 12 * INCH,
    label: 'lbf·ft',
    spellings: [
      ...['lbf-ft', 'lb-ft', 'lbs-ft', 'lbft', 'lbfft', 'ft-lb', 'ft-lbs', 'ft-lbf', 'ftlb', 'ftlbs'],
      ...['foot-pound', 'foot-pounds', 'pound-foot', 'pound-feet'],
    ],
  },
  'lbf-in': {
    dimension: 'torque',
    factor: POUND_FORCE * INCH,
    label: 'lbf·in',
    spellings: [
      ...['lbf-in', 'lb-in', 'lbs-in', 'lbin', 'in-lb', 'in-lbs', 'in-lbf', 'inlb', 'inlbs'],
      ...['inch-pound', 'inch-pounds', 'pound-inches'],
    ],
  },
  g: { dimension: 'mass', factor: 1e-3, label: 'g', spellings: ['g', 'gram', 'grams'] },
  kg: {
    dimension: 'mass',
    factor: 1,
    label: 'kg',
    spellings: ['kg', 'kgs', 'kilo', 'kilos', 'kilogram', 'kilograms'],
  },
  lb: { dimension: 'mass', factor: 0.45359237, label: 'lb', spellings: ['lb', 'lbs', 'pound', 'pounds'] },
  N: { dimension: 'force', factor: 1, label: 'N', spellings: ['n', 'newton', 'newtons'] },
  lbf: { dimension: 'force', factor: POUND_FORCE, label: 'lbf', spellings: ['lbf'] },
  kPa: { dimension: 'pressure', factor: 1000, label: 'kPa', spellings: ['kpa'] },
  psi: { dimension: 'pressure', factor: POUND_FORCE / (INCH * INCH), label: 'psi', spellings: ['psi'] },
  bar: { dimension: 'pressure', factor: 1e5, label: 'bar', spellings: ['bar', 'bars'] },
  degC: {
    dimension: 'temperature',
    factor: 1,
    offset: 273.15,
    label: '°C',
    spellings: ['degc', 'deg-c', '°c', 'c', 'celsius'],
  },
  degF: {
    dimension: 'temperature',
    factor: 5 / 9,
    offset: 459.67 * (5 / 9),
    label: '°F',
    spellings: ['degf', 'deg-f', '°f', 'f', 'fahrenheit'],
  },
  L: {
    dimension: 'volume',
    factor: 1e-3,
    label: 'L',
    spellings: ['l', 'litre', 'litres', 'liter', 'liters'],
  },
  mL: { dimension: 'volume', factor: 1e-6, label: 'mL', spellings: ['ml', 'millilitre', 'millilitres'] },
  qt: { dimension: 'volume', factor: 57.75 * INCH ** 3, label: 'qt', spellings: ['qt', 'quart', 'quarts'] },
  V: { dimension: 'voltage', factor: 1, label: 'V', spellings: ['v', 'volt', 'volts'] },
  mV: { dimension: 'voltage', factor: 1e-3, label: 'mV', spellings: ['mv', 'millivolt', 'millivolts'] },
  h: { dimension: 'time', factor: 3600, label: 'h', spellings: ['h', 'hr', 'hrs', 'hour', 'hours'] },
} as const satisfies Record<string, UnitDefinition>;

export type Unit = keyof typeof units;

export const unitCodes = Object.keys(units) as [Unit, ...Unit[]];

/** The definition of a unit with its optional fields visible. */
export function unitDefinition(unit: Unit): UnitDefinition {
  return units[unit];
}
