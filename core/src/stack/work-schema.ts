import { z } from 'zod';
import { works, type Work } from './works.ts';

export const workSchema = z.enum(Object.keys(works) as [Work, ...Work[]]);
