import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseQuantity, parseTogether, type Unit } from './index.ts';

const allowed = {
  length: ['in', 'mm', 'thou', 'um'],
  torque: ['lbf-ft', 'Nm', 'lbf-in'],
  distance: ['km', 'mi'],
  time: ['h'],
  heat: ['degC', 'degF'],
  amount: ['g', 'kg', 'lb', 'mL', 'L', 'qt'],
  pull: ['N', 'lbf'],
  pressure: ['kPa', 'psi', 'bar'],
} satisfies Record<string, Unit[]>;

/** What is typed, of which kind, and what it means: a value and its unit, or why it is refused. */
type Typed = [text: string, of: keyof typeof allowed, means: [number, Unit] | RegExp];

const fractions: Typed[] = [
  ['3/16 in', 'length', [0.1875, 'in']],
  ['3/16"', 'length', [0.1875, 'in']],
  ['3/16”', 'length', [0.1875, 'in']],
  ['3/16″', 'length', [0.1875, 'in']],
  ["3/16''", 'length', [0.1875, 'in']],
  ['3 / 16 in', 'length', [0.1875, 'in']],
  ['3⁄16 in', 'length', [0.1875, 'in']],
  ['1 11/16 in', 'length', [1.6875, 'in']],
  ['1-11/16 in', 'length', [1.6875, 'in']],
  ['1 11/16"', 'length', [1.6875, 'in']],
  ['1 1/2in', 'length', [1.5, 'in']],
  ['4½ thou', 'length', [4.5, 'thou']],
  ['4 ½ thou', 'length', [4.5, 'thou']],
  ['½ thou', 'length', [0.5, 'thou']],
  ['1¾"', 'length', [1.75, 'in']],
  ['2⅜ in', 'length', [2.375, 'in']],
  ['⅝ inch', 'length', [0.625, 'in']],
  ['-1/64 in', 'length', [-0.015625, 'in']],
  ['−½ thou', 'length', [-0.5, 'thou']],
  ['77 1/2 lb-ft', 'torque', [77.5, 'lbf-ft']],
  ['7/8 qt', 'amount', [0.875, 'qt']],
  ['1½ L', 'amount', [1.5, 'L']],
  ['17/16 in', 'length', [1.0625, 'in']],
  ['1 17/16 in', 'length', /not a figure/],
  ['3/0 in', 'length', /not a figure/],
  ['3/16/2 in', 'length', /not a figure/],
  ['1.5/16 in', 'length', /not a figure/],
  ['/16 in', 'length', /not a figure/],
  ['3/ in', 'length', /not a figure/],
];

const lengths: Typed[] = [
  ['0.004 in', 'length', [0.004, 'in']],
  ['.004 in', 'length', [0.004, 'in']],
  ['.004"', 'length', [0.004, 'in']],
  ['0.0045"', 'length', [0.0045, 'in']],
  ['0.004inch', 'length', [0.004, 'in']],
  ['0.004 inches', 'length', [0.004, 'in']],
  ['0.004 IN', 'length', [0.004, 'in']],
  ['0.004 in.', 'length', [0.004, 'in']],
  ['0,004 in', 'length', [0.004, 'in']],
  ['1.375 in', 'length', [1.375, 'in']],
  ['2.125"', 'length', [2.125, 'in']],
  ['4 thou', 'length', [4, 'thou']],
  ['4thou', 'length', [4, 'thou']],
  ['4.5 thou', 'length', [4.5, 'thou']],
  ['4,5 thou', 'length', [4.5, 'thou']],
  ['5 thousandths', 'length', [5, 'thou']],
  ['1 thousandth', 'length', [1, 'thou']],
  ['5 mil', 'length', [5, 'thou']],
  ['5 mils', 'length', [5, 'thou']],
  ['5-thou', 'length', [5, 'thou']],
  ['0.10 mm', 'length', [0.1, 'mm']],
  ['0,10 mm', 'length', [0.1, 'mm']],
  ['0.10mm', 'length', [0.1, 'mm']],
  ['0,125 mm', 'length', [0.125, 'mm']],
  ['0.125mm', 'length', [0.125, 'mm']],
  ['36.525 mm', 'length', [36.525, 'mm']],
  [',5 mm', 'length', [0.5, 'mm']],
  ['5. mm', 'length', [5, 'mm']],
  ['82.5 MM', 'length', [82.5, 'mm']],
  ['82.5 millimetres', 'length', [82.5, 'mm']],
  ['25 µm', 'length', [25, 'um']],
  ['25 μm', 'length', [25, 'um']],
  ['25 um', 'length', [25, 'um']],
  ['25 microns', 'length', [25, 'um']],
  ['+0.05 mm', 'length', [0.05, 'mm']],
  ['-0.05 mm', 'length', [-0.05, 'mm']],
  ['−0.05 mm', 'length', [-0.05, 'mm']],
  ['- 0.05 mm', 'length', /not a figure/],
  ['  0.05   mm  ', 'length', [0.05, 'mm']],
  ['36,525 mm', 'length', /36\.525 mm or 36525 mm/],
  ['1,375 in', 'length', /1\.375 in or 1375 in/],
  ['1.200 um', 'length', /1\.2 µm or 1200 µm/],
  ['1,050.50 mm', 'length', [1050.5, 'mm']],
  ['1.050,50 mm', 'length', [1050.5, 'mm']],
  ['0.05', 'length', /Add a unit: in, mm, thou, µm/],
  ['0.05 cm', 'length', /"cm" is not one of/],
  ['0.05 lb-ft', 'length', /"lb-ft" is not one of/],
  ['5 - 7 mm', 'length', /not a figure/],
  ['0.05 mm mm', 'length', /is not one of/],
  ['1.2.3 mm', 'length', /not a figure/],
  ['1,2,3 mm', 'length', /not a figure/],
  ['1..2 mm', 'length', /not a figure/],
  ['1e5 mm', 'length', /"e5 mm" is not one of/],
  ['0x10 mm', 'length', /"x10 mm" is not one of/],
  ['mm', 'length', /not a figure/],
  ['.', 'length', /not a figure|Add a unit/],
  ['', 'length', /Type a figure/],
  ['loose', 'length', /not a figure/],
  ['∞ mm', 'length', /not a figure/],
  [`${'9'.repeat(80)} mm`, 'length', /not a figure/],
];

const torques: Typed[] = [
  ['200 lb-ft', 'torque', [200, 'lbf-ft']],
  ['200 lbf·ft', 'torque', [200, 'lbf-ft']],
  ['77 ft lbs', 'torque', [77, 'lbf-ft']],
  ['77 ft-lbs', 'torque', [77, 'lbf-ft']],
  ['77ft-lb', 'torque', [77, 'lbf-ft']],
  ['77 ft.lb', 'torque', [77, 'lbf-ft']],
  ['77 ftlbs', 'torque', [77, 'lbf-ft']],
  ['118 lb.ft', 'torque', [118, 'lbf-ft']],
  ['118 lb. ft.', 'torque', [118, 'lbf-ft']],
  ['118 LB FT', 'torque', [118, 'lbf-ft']],
  ['118 lbs ft', 'torque', [118, 'lbf-ft']],
  ['118 foot-pounds', 'torque', [118, 'lbf-ft']],
  ['118 foot pounds', 'torque', [118, 'lbf-ft']],
  ['118 pound feet', 'torque', [118, 'lbf-ft']],
  ['118 lb*ft', 'torque', [118, 'lbf-ft']],
  ['30 lb-in', 'torque', [30, 'lbf-in']],
  ['30 in-lb', 'torque', [30, 'lbf-in']],
  ['30 in lbs', 'torque', [30, 'lbf-in']],
  ['30 inch pounds', 'torque', [30, 'lbf-in']],
  ['30 lbf·in', 'torque', [30, 'lbf-in']],
  ['271 Nm', 'torque', [271, 'Nm']],
  ['271 N·m', 'torque', [271, 'Nm']],
  ['271 N.m', 'torque', [271, 'Nm']],
  ['271 N m', 'torque', [271, 'Nm']],
  ['271 n-m', 'torque', [271, 'Nm']],
  ['271 NM', 'torque', [271, 'Nm']],
  ['271nm', 'torque', [271, 'Nm']],
  ['271 newton metres', 'torque', [271, 'Nm']],
  ['1 200 Nm', 'torque', [1200, 'Nm']],
  ["1'200 Nm", 'torque', [1200, 'Nm']],
  ['1,200 Nm', 'torque', /1\.2 N·m or 1200 N·m/],
  ['1.200 Nm', 'torque', /1\.2 N·m or 1200 N·m/],
  ['1,200.5 Nm', 'torque', [1200.5, 'Nm']],
  ['13,56 Nm', 'torque', [13.56, 'Nm']],
  ['27.1 Nm', 'torque', [27.1, 'Nm']],
  ['200', 'torque', /Add a unit/],
  ['200 lb', 'torque', /"lb" is not one of/],
  ['200 ft', 'torque', /"ft" is not one of/],
  ['200 kgm', 'torque', /"kgm" is not one of/],
  ['two hundred', 'torque', /not a figure/],
];

const meters: Typed[] = [
  ['611,240 km', 'distance', [611_240, 'km']],
  ['611240 km', 'distance', [611_240, 'km']],
  ['611 240 km', 'distance', [611_240, 'km']],
  ['611\u00a0240 km', 'distance', [611_240, 'km']],
  ['611\u202f240 km', 'distance', [611_240, 'km']],
  ["611'240 km", 'distance', [611_240, 'km']],
  ['611’240 km', 'distance', [611_240, 'km']],
  ['1.234.567 km', 'distance', [1_234_567, 'km']],
  ['1,234,567 km', 'distance', [1_234_567, 'km']],
  ['1,050.50 km', 'distance', [1_050.5, 'km']],
  ['1.050,50 km', 'distance', [1_050.5, 'km']],
  ['611240.5 KM', 'distance', [611_240.5, 'km']],
  ['100,000 mi', 'distance', [100_000, 'mi']],
  ['100000 miles', 'distance', [100_000, 'mi']],
  ['12,5 km', 'distance', [12.5, 'km']],
  ['1.200 km', 'distance', /1\.2 km or 1200 km/],
  ['611.240 km', 'distance', /611\.24 km or 611240 km/],
  ['61,1240 km', 'distance', [61.124, 'km']],
  ['6,11,240 km', 'distance', /not a figure/],
  ['611,24,0 km', 'distance', /not a figure/],
  ['1,234.567,8 km', 'distance', /not a figure/],
  ['about 600000 km', 'distance', /not a figure/],
  ['600k km', 'distance', /"k km" is not one of/],
  ['4,812 h', 'time', [4_812, 'h']],
  ['4812.5 hrs', 'time', [4_812.5, 'h']],
  ['4812 hours', 'time', [4_812, 'h']],
  ['4.812 h', 'time', /4\.812 h or 4812 h/],
  ['80 km/h', 'distance', /"km\/h" is not one of/],
];

const others: Typed[] = [
  ['140 F', 'heat', [140, 'degF']],
  ['140 °F', 'heat', [140, 'degF']],
  ['140°F', 'heat', [140, 'degF']],
  ['140 deg F', 'heat', [140, 'degF']],
  ['140 degF', 'heat', [140, 'degF']],
  ['60 C', 'heat', [60, 'degC']],
  ['60°c', 'heat', [60, 'degC']],
  ['60,5 °C', 'heat', [60.5, 'degC']],
  ['-12 °C', 'heat', [-12, 'degC']],
  ['60 celsius', 'heat', [60, 'degC']],
  ['60 degrees', 'heat', /"degrees" is not one of/],
  ['60 K', 'heat', /"K" is not one of/],
  ['100 psi', 'pressure', [100, 'psi']],
  ['6.9 bar', 'pressure', [6.9, 'bar']],
  ['690 kPa', 'pressure', [690, 'kPa']],
  ['1.250 bar', 'pressure', [1.25, 'bar']],
  ['40 N', 'pull', [40, 'N']],
  ['9 lbf', 'pull', [9, 'lbf']],
  ['9 newtons', 'pull', [9, 'N']],
  ['0.5 L', 'amount', [0.5, 'L']],
  ['0,5 l', 'amount', [0.5, 'L']],
  ['500 ml', 'amount', [500, 'mL']],
  ['1.200 g', 'amount', /1\.2 g or 1200 g/],
  ['1.200 kg', 'amount', [1.2, 'kg']],
  ['2 pounds', 'amount', [2, 'lb']],
  ['1 quart', 'amount', [1, 'qt']],
];

describe('what people type', () => {
  it.each([...fractions, ...lengths, ...torques, ...meters, ...others])('%s (%s)', (text, of, means) => {
    const read = parseQuantity(text, allowed[of]);
    if (means instanceof RegExp) expect(read.ok ? read.quantity : read.message).toMatch(means);
    else expect(read.ok ? [read.quantity.value, read.quantity.unit] : read.message).toEqual(means);
  });

  it('offers both meanings of a separator, each of which is then read as itself', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 999 }),
        fc.integer({ min: 0, max: 999 }),
        fc.constantFrom(',', '.'),
        (thousands, rest, separator) => {
          const read = parseQuantity(
            `${thousands}${separator}${String(rest).padStart(3, '0')} Nm`,
            allowed.torque,
          );
          expect(read.ok ? [] : read.either?.map((q) => q.value)).toEqual([
            Number(`${thousands}.${String(rest).padStart(3, '0')}`),
            thousands * 1000 + rest,
          ]);
        },
      ),
    );
  });

  it('gives a bare figure the unit of its neighbour, and asks where its neighbours differ', () => {
    const beside = (...[here, other, air]: string[]) =>
      Object.values(
        parseTogether({ here: here!, other: other!, air: air! }, allowed.heat, 'degC', 'unlabelled'),
      ).map((read) => (read.ok ? `${read.quantity.value} ${read.quantity.unit}` : read.message));
    expect(beside('140 F', '150', '60')).toEqual(['140 degF', '150 degF', '60 degF']);
    expect(beside('60', '61', '12')).toEqual(['60 degC', '61 degC', '12 degC']);
    expect(beside('140 F', '61 C', '12')).toEqual(['140 degF', '61 degC', 'Add a unit: °C, °F']);
    expect(beside('140 F', 'warm', '')).toEqual(['140 degF', '"warm" is not a figure', 'Type a figure']);
  });

  it('asks where the field says one unit and its neighbour was typed in another', () => {
    const { inner, outer } = parseTogether({ inner: '1/8"', outer: '9' }, ['mm', 'in'], 'mm', 'labelled');
    expect([inner.ok, outer]).toEqual([true, { ok: false, message: 'Add a unit: mm, in' }]);
    const both = parseTogether({ inner: '8 mm', outer: '9' }, ['mm', 'in'], 'mm', 'labelled');
    expect(both.outer).toMatchObject({ quantity: { value: 9, unit: 'mm' } });
  });

  it('never throws, and never reads what is no number', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 30 }), (text) => {
        const read = parseQuantity(text, allowed.length, 'mm');
        if (read.ok) expect(Number.isFinite(read.quantity.value)).toBe(true);
      }),
    );
  });
});
