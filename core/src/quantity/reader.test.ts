import fc from 'fast-check';
import { expect, it } from 'vitest';
import { convert } from './quantity.ts';
import {
  formatBoth,
  formatFor,
  formatTypedFor,
  inchReader,
  metricReader,
  unitFor,
  usualReader,
} from './reader.ts';
import { units, unitDefinition, type Unit } from './units.ts';

// Converted figures by NIST SP 811, appendix B.8, rounded to what the reading can mean.
it.each([
  [611_240, 'km', inchReader, '379,807 mi'],
  [100, 'mi', metricReader, '161 km'],
  [350, 'lbf-ft', metricReader, '475 N·m'],
  [475, 'Nm', inchReader, '350 lbf·ft'],
  [10, 'lbf-in', metricReader, '1.1 N·m'],
  [2, 'Nm', inchReader, '18 lbf·in'],
  [0.005, 'in', metricReader, '0.127 mm'],
  [3, 'thou', metricReader, '0.076 mm'],
  [0.1, 'mm', inchReader, '0.0039 in'],
  [25, 'um', inchReader, '1.0 thou'],
  [12.7, 'mm', inchReader, '0.5 in'],
  [12, 'mm', usualReader, '12 mm'],
  [0.5, 'in', usualReader, '12.7 mm'],
  [0.25, 'in', metricReader, '6.35 mm'],
  [140, 'degF', metricReader, '60 °C'],
  [60, 'degC', inchReader, '140 °F'],
  [1, 'qt', metricReader, '0.95 L'],
  [350, 'mL', inchReader, '0.37 qt'],
] as const)('says %d %s to somebody who reads otherwise', (value, unit, reader, words) => {
  expect(formatFor({ value, unit }, reader)).toBe(words);
});

it('says it both ways, the reader’s first; once where there is no other way', () => {
  expect(formatBoth({ value: 350, unit: 'lbf-ft' }, metricReader)).toBe('475 N·m (350 lbf·ft)');
  expect(formatBoth({ value: 0.005, unit: 'in' }, inchReader)).toBe('0.0050 in (0.127 mm)');
  expect(formatBoth({ value: 85, unit: 'g' }, inchReader)).toBe('85 g');
});

it('leaves a figure as it was written where the reader has no other wish, or there is no reader', () => {
  expect(formatFor({ value: 3, unit: 'thou' }, inchReader)).toBe('3.0 thou');
  expect(formatFor({ value: 350, unit: 'mL' }, metricReader)).toBe('350 mL');
  expect(formatFor({ value: 25, unit: 'N' }, inchReader)).toBe('25.00 N');
  expect(formatFor({ value: 350, unit: 'lbf-ft' }, null)).toBe('350 lbf·ft');
  expect(formatTypedFor({ value: 8.5, unit: 'thou' }, usualReader)).toBe('8.5 thou');
  expect(formatTypedFor({ value: 8.5, unit: 'thou' }, metricReader)).toBe('0.216 mm');
});

const written = fc.record({
  value: fc.double({ min: 0.001, max: 5_000, noNaN: true }),
  unit: fc.constantFrom(...(Object.keys(units) as Unit[])),
});
const reader = fc.constantFrom(inchReader, metricReader, usualReader);

it('never turns one kind of quantity into another, and says the same to the digits it shows', () => {
  fc.assert(
    fc.property(written, reader, (q, who) => {
      const unit = unitFor(q, who);
      expect(unitDefinition(unit).dimension).toBe(unitDefinition(q.unit).dimension);
      expect(unitFor({ value: convert(q.value, q.unit, unit), unit }, who)).toBe(unit);
      const shown = formatFor(q, who).split(' ')[0]!.replaceAll(',', '');
      const digits = shown.split('.')[1]?.length ?? 0;
      const exact = convert(q.value, q.unit, unit);
      // Trailing noughts of a thickness are left out: to a hundredth of a millimetre at the least.
      expect(Math.abs(Number(shown) - exact)).toBeLessThanOrEqual(
        0.5001 * 10 ** -Math.min(digits, unit === 'in' ? 3 : 2),
      );
    }),
  );
});
