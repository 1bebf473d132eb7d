import { z } from 'zod';
import { defineRoute, idParams } from '../route/index.ts';

export { METER_FILE_MOST, meterFileRoutes, type MeterFile, type MeterReport } from './meter-files.ts';

/** How many good units and bad rows a preview shows; all of them are counted. */
export const PREVIEW_ROWS = 200;

/** A fleet file: at most 2 MB of text. */
const fleetFileSchema = z.object({ csv: z.string().min(1, 'the file is empty').max(2_000_000) });

export const fleetPreviewSchema = z.object({
  good: z.array(
    z.object({
      lines: z.array(z.int()),
      owner: z.string(),
      name: z.string(),
      plate: z.string(),
      kind: z.string(),
      axles: z.int(),
    }),
  ),
  bad: z.array(z.object({ line: z.int(), name: z.string(), reason: z.string() })),
  goodCount: z.int(),
  badCount: z.int(),
});
export type FleetPreview = z.infer<typeof fleetPreviewSchema>;

/** Papers that can be printed of a job. */
export const jobPapers = {
  traveller: 'Traveller',
  record: 'Service record',
  tags: 'Wheel-end tags',
  estimate: 'Estimate',
} as const;
export type JobPaper = keyof typeof jobPapers;

export const exchangeRoutes = {
  jobPaper: defineRoute({
    method: 'get',
    path: '/api/exchange/jobs/:id/:paper.pdf',
    summary: 'A job on paper, as PDF: its traveller, its service record, or tags for its wheel ends',
    access: 'see-jobs',
    params: idParams.extend({ paper: z.enum(Object.keys(jobPapers) as [JobPaper, ...JobPaper[]]) }),
    query: z.object({ size: z.enum(['a4', 'letter']).optional() }),
    answer: z.instanceof(Uint8Array),
  }),
  preview: defineRoute({
    method: 'post',
    path: '/api/exchange/fleet/preview',
    summary: 'Read a fleet file and say which rows are good and which are not, without keeping anything',
    access: 'change-fleet',
    body: fleetFileSchema,
    answer: fleetPreviewSchema,
  }),
  importFleet: defineRoute({
    method: 'post',
    path: '/api/exchange/fleet',
    summary: 'Import the good units of a fleet file, all of them or none',
    access: 'change-fleet',
    body: fleetFileSchema,
    answer: fleetPreviewSchema,
  }),
  exportFleet: defineRoute({
    method: 'get',
    path: '/api/exchange/fleet.csv',
    summary: 'The whole fleet as CSV, in the form in which it can be brought in',
    access: 'see-units',
    answer: z.string(),
  }),
};
