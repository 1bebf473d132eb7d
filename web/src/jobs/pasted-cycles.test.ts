import { describe, expect, it } from 'vitest';
import { readPastedCycles } from './pasted-cycles.ts';

const values = (text: string) => {
  const read = readPastedCycles(text, 'in');
  return read.ok
    ? read.cycles.map((c) => [c.push.value, c.push.unit, c.pull.value, c.pull.unit])
    : read.message;
};

describe('readPastedCycles', () => {
  it('takes tab, semicolon or space, units or none, and empty lines', () => {
    expect(values('0.0000\t0.0031\r\n\r\n0,01 mm; 0,08 mm\n-0.0010 0.0042 in\n')).toEqual([
      [0, 'in', 0.0031, 'in'],
      [0.01, 'mm', 0.08, 'mm'],
      [-0.001, 'in', 0.0042, 'in'],
    ]);
  });

  it('gives a bare figure the unit of the one beside it', () => {
    expect(values('0 3 thou\n1 thou 4\n')).toEqual([
      [0, 'thou', 3, 'thou'],
      [1, 'thou', 4, 'thou'],
    ]);
  });

  it('takes nothing where one line is wrong, and says which', () => {
    expect(values('0 0.003\nready')).toBe('Line 2, “ready”, is not a push and a pull');
    expect(values('0 0.003\n1.2.3 0.004')).toMatch(/^Line 2: "1.2.3" is not a figure/);
    expect(values(Array(21).fill('0 0.003').join('\n'))).toMatch(/More than 20/);
  });
});
