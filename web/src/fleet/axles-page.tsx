import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { UnitDetail } from '@lanternwright/contract/fleet';
import { problemText } from '../api.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { AxleEditor, type EditedAxle } from './axle-editor.tsx';
import { useReplaceAxlesMutation, useUnitQuery } from './fleet-api.ts';

function AxlesForm({ unit }: { unit: UnitDetail }) {
  const navigate = useNavigate();
  const [axles, setAxles] = useState<readonly EditedAxle[]>(unit.axles);
  // What is edited began with this: a unit that is read anew meanwhile must not make it look newer.
  const [seenVersion] = useState(unit.version);
  const [replace, { isLoading, error }] = useReplaceAxlesMutation();
  return (
    <>
      <AxleEditor
        axles={axles}
        onChange={setAxles}
        takenOut={[...unit.axles, ...unit.takenOut.map((t) => t.axle)]}
      />
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      <div className="flex gap-3">
        <Button
          weight="main"
          disabled={isLoading}
          onClick={() =>
            void replace({ id: unit.id, seenVersion, axles: [...axles] }).then(
              ({ data }) => data && navigate(`/fleet/${unit.id}`),
            )
          }
        >
          Keep these axles
        </Button>
        <Link to={`/fleet/${unit.id}`} className={buttonLook('plain')}>
          Leave as they were
        </Link>
      </div>
    </>
  );
}

/** Changing the axles and sheets of a unit that is there. */
export function AxlesPage() {
  const { id = '' } = useParams();
  const { data: unit, error } = useUnitQuery(id);
  return (
    <main className="mx-auto flex w-full max-w-[1160px] flex-col gap-5 p-5">
      <h1 className="text-23">Axles of {unit?.name ?? 'the unit'}</h1>
      <p className="text-muted">
        Running jobs keep the sheets they opened with; new jobs take these. An axle keeps its number for life:
        one that is taken out takes its readings along, and leaves the number free.
      </p>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      {unit && <AxlesForm unit={unit} />}
    </main>
  );
}
