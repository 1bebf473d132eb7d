import { useState } from 'react';
import { v4 as uuid } from 'uuid';
import { z } from 'zod';
import type { ListedTool } from '@lanternwright/contract/tools';
import { LampForm } from '../lamp-form.tsx';
import { formatDate, shopToday } from '../shell/words.ts';
import { TextField } from '../ui/field.tsx';
import { useRequestForm } from '../use-request-form.ts';
import { useCertifyToolMutation } from './tool-care-api.ts';

const LARGEST_BYTES = 1_500_000;
const types = ['application/pdf', 'image/jpeg'] as const;

/** A file as base64, without what stands before it in a data address. */
const base64Of = (file: File) =>
  new Promise<string>((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve((reader.result as string).replace(/^[^,]*,/, ''));
    reader.onerror = () => reject(reader.error ?? new Error('The file cannot be read'));
    reader.readAsDataURL(file);
  });

const schema = z.object({
  until: z.string().min(1, 'Enter the last day on which it is valid'),
  files: z
    .custom<FileList>()
    .transform((files) => files?.[0])
    .transform((file, context) => {
      const type = types.find((t) => t === file?.type);
      const wrong = !file
        ? 'Choose the certificate'
        : !type
          ? 'A PDF or a JPEG'
          : file.size > LARGEST_BYTES
            ? 'This file is over 1.5 MB. Choose a smaller one.'
            : null;
      if (file && type && wrong === null) return { file, type };
      context.addIssue({ code: 'custom', message: wrong ?? 'A PDF or a JPEG' });
      return z.NEVER;
    }),
});

/** A calibration with what was written about it. */
export function CertificateForm({ listed, onDone }: { listed: ListedTool; onDone: () => void }) {
  const [certify, { isLoading, error }] = useCertifyToolMutation();
  // The same certificate, however often it is sent.
  const [certificateId] = useState(() => uuid());
  const { errorOf, field, handleSubmit, register } = useRequestForm(schema, { until: '' }, error, {
    file: 'files',
    name: 'files',
    type: 'files',
  });
  const { id, code } = listed.tool;
  const save = handleSubmit(async ({ until, files: { file, type } }) => {
    const sent = { certificateId, name: file.name, type, file: await base64Of(file), until };
    const { data } = await certify({ id, seenVersion: listed.version, ...sent });
    if (data) onDone();
  });
  const problem = errorOf('files');
  return (
    <LampForm
      label={`Certificate of ${code}`}
      {...{ error, isLoading }}
      button={`Record the calibration of ${code}`}
      onSave={() => void save()}
      onCancel={onDone}
    >
      <div className="grid gap-3 sm:grid-cols-2">
        <label className="flex flex-col gap-1">
          <span className="caption">Certificate, a PDF or a JPEG</span>
          <input
            type="file"
            accept={types.join()}
            aria-invalid={problem !== undefined}
            className="min-h-12 rounded-md border border-edge bg-panel p-2 text-14"
            {...register('files')}
          />
          {problem && <span className="text-13 text-rust">{problem}</span>}
        </label>
        <TextField label="Holds until" type="date" min={shopToday()} {...field('until')} />
      </div>
    </LampForm>
  );
}

/** What was written about a tool, the newest first. */
export function Certificates({ listed }: { listed: ListedTool }) {
  const kept = [...(listed.certificates ?? [])].reverse();
  if (kept.length === 0) return null;
  return (
    <ul aria-label={`Certificates of ${listed.tool.code}`} className="flex flex-wrap gap-x-4 text-13">
      {kept.map(({ id, name, until, by }) => (
        <li key={id}>
          <a
            href={`/api/tools/${listed.tool.id}/certificates/${id}`}
            className="inline-flex min-h-11 items-center gap-1 underline underline-offset-2"
          >
            {name}
          </a>{' '}
          <span className="text-muted">
            until {formatDate(until)}, {by}
          </span>
        </li>
      ))}
    </ul>
  );
}
