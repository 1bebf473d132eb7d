import { z } from 'zod';
import { BadInput, defineCalculation } from '../calculation/index.ts';
import { convert } from './quantity.ts';
import { unitCodes } from './units.ts';

const unit = z.enum(unitCodes);

/** `convert`: a value from one unit to another of its dimension. */
export const convertCalculation = defineCalculation({
  name: 'convert',
  title: 'Convert units',
  summary: 'Reads a figure in another unit of the same kind, exactly as the standard defines it.',
  inputSchema: z.object({ value: z.number().min(-1e15).max(1e15), from: unit, to: unit }),
  outputSchema: z.object({ value: z.number() }),
  sources: [{ text: 'NIST SP 811, Guide for the use of the SI, appendix B', mark: 'published' }],
  example: { value: 200, from: 'lbf-ft', to: 'Nm' },
  compute: ({ value, from, to }) => {
    if ((from === 'degC' && value < -273.15) || (from === 'degF' && value < -459.67)) {
      throw new BadInput('is below absolute zero', 'value');
    }
    try {
      return { value: convert(value, from, to) };
    } catch (error) {
      if (error instanceof RangeError) throw new BadInput(error.message, 'to');
      throw error;
    }
  },
});
