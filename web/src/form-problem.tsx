import { problemFields, problemText } from './api.ts';
import { Note } from './ui/problem-note.tsx';

/** Why a form was refused, where the answer names none of its fields: those say it themselves. */
export function FormProblem({ error }: { error: unknown }) {
  if (!error || Object.keys(problemFields(error)).length > 0) return null;
  return <Note tone="trouble">{problemText(error)}</Note>;
}

/** Why a page, or a part of one, is not there. */
export function PageProblem({ error }: { error: unknown }) {
  return (
    <div className="p-5">
      <Note tone="trouble">{problemText(error)}</Note>
    </div>
  );
}
