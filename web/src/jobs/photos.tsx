import { Camera } from 'lucide-react';
import { useState } from 'react';
import { partsToJudge, recordedBy, wheelEndAt } from '@lanternwright/core/traveller';
import { componentOf } from '@lanternwright/core/inspection';
import { stages, type Stage } from '@lanternwright/core/procedure';
import type { WheelEnd } from '@lanternwright/core/traveller';
import { formatTime } from '../shell/words.ts';
import { useAppDispatch, useAppSelector } from '../store.ts';
import { buttonLook } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { addPhoto } from './photo-queue.ts';
import { scalePhoto } from './scale-photo.ts';
import type { OpenJob } from './use-job.ts';

/** Takes a photo, or a picture from the device, and puts it into the record of a stage. */
export function AddPhoto({ open, position, stage }: { open: OpenJob; position: string; stage: Stage }) {
  const wheelEnd = wheelEndAt(open.job, position);
  const parts = wheelEnd ? partsToJudge(wheelEnd) : [];
  const [caption, setCaption] = useState('');
  const [component, setComponent] = useState('');
  const of = component === '' ? {} : { component };
  const dispatch = useAppDispatch();
  const [error, setError] = useState<string | null>(null);
  const { waiting, refusal } = useAppSelector((s) => s.photoQueue);
  const pending = waiting.filter((p) => p.jobId === open.job.id && p.position === position).length;
  const take = async (file: File) => {
    setError(null);
    let jpeg: string;
    try {
      jpeg = await scalePhoto(file);
    } catch (cause) {
      if (!(cause instanceof DOMException)) throw cause;
      return setError('This file is no picture. Nothing was kept.');
    }
    try {
      await dispatch(
        addPhoto(
          { jobId: open.job.id, position, stage, ...of, caption: caption.trim(), by: open.person },
          jpeg,
        ),
      );
      setCaption('');
    } catch (cause) {
      if (!(cause instanceof DOMException)) throw cause;
      setError(`This device could not keep the photo: ${cause.message}`);
    }
  };
  return (
    <details className="border-t border-rule pt-3">
      <summary className="min-h-8 text-14">Add a photo</summary>
      <div className="flex flex-wrap items-end gap-3 pt-2">
        {stage === 'inspect' && (
          <div className="min-w-48">
            <SelectField
              label="Of which part"
              value={component}
              onChange={(e) => setComponent(e.target.value)}
            >
              <option value="">The whole</option>
              {parts.map((id) => (
                <option key={id} value={id}>
                  {componentOf(id)?.title}
                </option>
              ))}
            </SelectField>
          </div>
        )}
        <div className="min-w-60 flex-1">
          <TextField
            label="What it shows"
            value={caption}
            maxLength={200}
            onChange={(e) => setCaption(e.target.value)}
          />
        </div>
        <label
          className={`${buttonLook('plain')} cursor-pointer has-focus-visible:outline-3 has-focus-visible:outline-lamp-edge`}
        >
          <Camera size={18} aria-hidden /> Take or choose a photo
          <input
            type="file"
            accept="image/*"
            capture="environment"
            className="sr-only"
            onChange={(e) => {
              const [file] = e.target.files ?? [];
              e.target.value = '';
              if (file) void take(file);
            }}
          />
        </label>
      </div>
      {pending > 0 && (
        <p role="status" className="pt-2 text-13">
          {pending} {pending === 1 ? 'photo is' : 'photos are'} on the way
        </p>
      )}
      {refusal?.jobId === open.job.id && <Note tone="trouble">{refusal.text}</Note>}
      {error && <Note tone="trouble">{error}</Note>}
    </details>
  );
}

/** The photos of a wheel end, newest last; each opens whole. */
export function Photos({ wheelEnd }: { wheelEnd: WheelEnd }) {
  if (wheelEnd.photos.length === 0) return null;
  return (
    <section>
      <h2 className="caption pb-2">Photos of {wheelEnd.position}</h2>
      <ul className="grid grid-cols-2 gap-2">
        {wheelEnd.photos.map((p) => {
          const where = stages.find((s) => s.id === p.stage)?.title ?? p.stage;
          return (
            <li key={p.eventId}>
              <a href={`/api/jobs/photos/${p.photoId}`} target="_blank" rel="noreferrer">
                <img
                  src={`/api/jobs/photos/${p.photoId}`}
                  alt={p.caption || `${where}, ${wheelEnd.position}`}
                  loading="lazy"
                  className="aspect-4/3 w-full rounded-sm border border-edge object-cover"
                />
              </a>
              <p className="text-12 text-muted">
                {p.component && `${componentOf(p.component)?.title ?? p.component}. `}
                {p.caption && `${p.caption}. `}
                {where}, {recordedBy(p.by)}, {formatTime(p.at)}
              </p>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
