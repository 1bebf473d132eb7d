import { useState } from 'react';
import { layerAt, type LayerPlace } from '@lanternwright/core/assembly';
import { describeLayer, layerTitles, type LayerId } from '@lanternwright/core/stack';
import { canBeOpen } from '@lanternwright/core/traveller';
import { SelectField, TextField } from '../ui/field.tsx';
import { WithReason, type RouteFormProps } from './with-reason.tsx';

const known: Record<LayerPlace, string> = {
  on: 'On, as far as the record knows',
  open: 'Open, by the record',
  off: 'Off, by the record',
};
const changed: Record<LayerPlace, string> = {
  on: 'On: others put it on',
  open: 'Open',
  off: 'Off',
};

/**
 * How a wheel end stands after others worked on it, or where a record was lost: layer by layer, outside to inside.
 * Nothing is chosen beforehand; what is not chosen stays as the record has it.
 */
export function AsItStands({ open, wheelEnd, done }: RouteFormProps) {
  const [is, setIs] = useState<Partial<Record<LayerId, LayerPlace | ''>>>({});
  const [who, setWho] = useState('');
  const { position, side } = wheelEnd;
  const bySupervisor = open.person.role === 'supervisor';
  const places = (id: LayerId): LayerPlace[] => [
    ...(bySupervisor ? (['on'] as const) : []),
    ...(canBeOpen.has(id) ? (['open'] as const) : []),
    'off',
  ];
  const layers = side.stack.flatMap(({ layer }) => {
    const place = is[layer];
    return place ? [{ layer, is: place }] : [];
  });
  return (
    <section className="flex flex-col gap-3">
      <h3 className="text-18">How {position} stands now</h3>
      <p className="text-14 text-muted">
        For what this record cannot know: a tyre shop, another workshop, a unit bought used, a tablet that was
        lost. It proves nothing: nuts are torqued, the lock is looked at and play is measured here, and the
        release names what was taken on their word.
        {!bySupervisor && ' What others put on is for a supervisor to say.'}
      </p>
      <div className="grid gap-3 sm:grid-cols-2">
        {side.stack.map((layer) => (
          <SelectField
            key={layer.layer}
            label={describeLayer(layer)}
            value={is[layer.layer] ?? ''}
            onChange={(e) => setIs({ ...is, [layer.layer]: e.target.value as LayerPlace | '' })}
          >
            <option value="">{known[layerAt(side, layer.layer).is]}</option>
            {places(layer.layer).map((place) => (
              <option key={place} value={place}>
                {changed[place]}
              </option>
            ))}
          </SelectField>
        ))}
      </div>
      <TextField
        label="Who did it"
        value={who}
        hint="The shop or the person, or “not known”"
        onChange={(e) => setWho(e.target.value)}
      />
      <WithReason
        label="How that is known"
        button={
          layers.length === 0
            ? 'Choose what stands otherwise'
            : `Record: ${layers.map((l) => `${layerTitles[l.layer].toLowerCase()} ${l.is}`).join(', ')}`
        }
        disabled={layers.length === 0 || who.trim() === ''}
        onSend={(reason) => {
          const why = open.send({ kind: 'as-it-stands', position, layers, who: who.trim(), reason });
          if (why === null) done();
          return why;
        }}
        onCancel={done}
      />
    </section>
  );
}
