import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  convert,
  formatQuantity,
  parseQuantity,
  quantity,
  readingSchema,
  units,
  type Unit,
} from './index.ts';

const lengths: Unit[] = ['in', 'mm', 'thou', 'um'];
const torques: Unit[] = ['lbf-ft', 'Nm', 'lbf-in'];
const distances: Unit[] = ['km', 'mi'];

const valueOf = (text: string, allowed: Unit[], assumed?: Unit) => {
  const read = parseQuantity(text, allowed, assumed);
  return read.ok ? [read.quantity.value, read.quantity.unit] : read.message;
};

describe('convert', () => {
  // NIST SP 811, appendix B.8: exact factors and the tabulated ones to their printed digits.
  it.each<[number, Unit, Unit, number]>([
    [1, 'in', 'mm', 25.4],
    [1, 'thou', 'um', 25.4],
    [1, 'mi', 'km', 1.609344],
    [1, 'lbf-ft', 'Nm', 1.3558179483],
    [1, 'lbf-in', 'Nm', 0.1129848],
    [1, 'lb', 'kg', 0.45359237],
    [1, 'lbf', 'N', 4.448221615],
    [1, 'psi', 'kPa', 6.894757],
    [1, 'bar', 'kPa', 100],
    [1, 'qt', 'L', 0.946352946],
    [32, 'degF', 'degC', 0],
    [212, 'degF', 'degC', 100],
  ])('%s %s in %s is %s', (value, from, to, expected) => {
    expect(convert(value, from, to)).toBeCloseTo(expected, 6);
  });

  it('takes the band of RP 618 to millimetres (0.001 to 0.005 in, TMC RP 618)', () => {
    expect(convert(0.001, 'in', 'mm')).toBeCloseTo(0.0254, 12);
    expect(convert(0.005, 'in', 'mm')).toBeCloseTo(0.127, 12);
  });

  it('refuses to mix dimensions', () => {
    expect(() => convert(1, 'Nm', 'mm')).toThrow(/torque/);
  });

  it('comes back to where it started', () => {
    const sameDimension = fc
      .constantFrom(...(Object.keys(units) as Unit[]))
      .chain((a) =>
        fc.tuple(
          fc.constant(a),
          fc.constantFrom(
            ...(Object.keys(units) as Unit[]).filter((b) => units[b].dimension === units[a].dimension),
          ),
        ),
      );
    fc.assert(
      fc.property(sameDimension, fc.double({ min: 0.001, max: 1e6, noNaN: true }), ([a, b], value) => {
        expect(convert(convert(value, a, b), b, a) / value).toBeCloseTo(1, 6);
      }),
    );
  });
});

describe('parseQuantity', () => {
  it.each<[string, Unit[], number, Unit]>([
    ['0.004 in', lengths, 0.004, 'in'],
    ['4 thou', lengths, 4, 'thou'],
    ['0.10mm', lengths, 0.1, 'mm'],
    ['0,10 mm', lengths, 0.1, 'mm'],
    ['.005"', lengths, 0.005, 'in'],
    ['200 lb-ft', torques, 200, 'lbf-ft'],
    ['271 N·m', torques, 271, 'Nm'],
    ['611,240 km', distances, 611240, 'km'],
    ['\u22120.001 in', lengths, -0.001, 'in'],
  ])('reads %s', (text, allowed, value, unit) => {
    expect(valueOf(text, allowed)).toEqual([value, unit]);
  });

  it('assumes a unit only when told which', () => {
    expect(valueOf('0.0045', lengths, 'in')).toEqual([0.0045, 'in']);
    expect(valueOf('0.0045', lengths)).toMatch(/Add a unit/);
  });

  it.each(['', 'soon', '1.2.3 mm', '1,2,3 mm', '4 furlongs', '200 lb-ft', '1e5 mm'])(
    'says what is wrong with "%s"',
    (text) => {
      expect(valueOf(text, lengths)).toBeTypeOf('string');
    },
  );

  it('reads back what is written', () => {
    const tidy: [Unit, number][] = [
      ['in', 4],
      ['mm', 3],
      ['thou', 1],
      ['Nm', 0],
      ['lbf-ft', 0],
      ['km', 0],
      ['mi', 0],
      ['h', 0],
    ];
    fc.assert(
      fc.property(fc.constantFrom(...tidy), fc.integer({ min: 0, max: 999_999 }), ([unit, digits], n) => {
        const value = Number((n / 10 ** digits).toFixed(digits));
        expect(parseQuantity(formatQuantity({ value, unit }), [unit])).toEqual({
          ok: true,
          quantity: quantity(value, unit),
        });
      }),
    );
  });
});

describe('quantity schemas', () => {
  it('compute the SI value themselves, whatever was sent', () => {
    expect(readingSchema.parse({ value: 0.005, unit: 'in', si: 99 }).si).toBeCloseTo(0.000127, 12);
  });

  it('refuse what no dial can read, and name the field', () => {
    const result = readingSchema.safeParse({ value: 5, unit: 'in' });
    expect(result.error?.issues[0]?.path).toEqual(['value']);
    expect(readingSchema.safeParse({ value: NaN, unit: 'mm' }).success).toBe(false);
    expect(readingSchema.safeParse({ value: 1, unit: 'Nm' }).success).toBe(false);
  });
});

describe('formatQuantity', () => {
  it('keeps the usual digits and groups thousands', () => {
    expect(formatQuantity({ value: 0.0083, unit: 'in' })).toBe('0.0083 in');
    expect(formatQuantity({ value: 0.0083, unit: 'in' }, 'mm')).toBe('0.211 mm');
    expect(formatQuantity({ value: 1234567.4, unit: 'km' })).toBe('1,234,567 km');
    expect(formatQuantity({ value: -0.00001, unit: 'in' })).toBe('0.0000 in');
  });
});
