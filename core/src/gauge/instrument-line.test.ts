import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readInstrumentLine } from './index.ts';

describe('readInstrumentLine', () => {
  it('reads name, figure and unit', () => {
    expect(readInstrumentLine('DI-04 0.0031 in')).toMatchObject({
      ok: true,
      id: 'DI-04',
      letters: 'DI',
      quantity: { value: 0.0031, unit: 'in' },
    });
    expect(readInstrumentLine(' TW-03  271 Nm\r')).toMatchObject({ ok: true, quantity: { unit: 'Nm' } });
    expect(readInstrumentLine('HT-1 64 degC')).toMatchObject({ ok: true, quantity: { value: 64 } });
  });

  it.each([
    ['', /not an instrument’s/],
    ['0.0031', /not an instrument’s/],
    ['XX-04 0.0031 in', /no kind of instrument XX/],
    ['DI-04 271 Nm', /DI-04/],
    ['DI-04 0.0031', /DI-04/],
    ['DI-04 3 in', /out of a dial indicator’s range/],
    ['TW-03 -5 Nm', /out of a torque wrench’s range/],
    [`DI-04 ${'9'.repeat(90)} in`, /too long/],
  ])('says what is wrong with “%s”', (line, reason) => {
    const read = readInstrumentLine(line);
    expect(read.ok).toBe(false);
    expect(read.ok ? '' : read.reason).toMatch(reason);
  });

  it('never throws, whatever comes down the line', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (line) => typeof readInstrumentLine(line).ok === 'boolean'),
    );
  });
});
