import { inchReader, metricReader, type ReaderUnits } from '@lanternwright/core/quantity';
import { Button } from '../ui/button.tsx';
import { SelectField } from '../ui/field.tsx';

const choices: { [K in keyof ReaderUnits]: { label: string; titles: Record<ReaderUnits[K], string> } } = {
  length: { label: 'End play', titles: { in: 'Inches and thousandths', mm: 'Millimetres' } },
  thickness: { label: 'Linings, depths, places', titles: { in: 'Inches', mm: 'Millimetres' } },
  distance: { label: 'Distances', titles: { km: 'Kilometres', mi: 'Miles' } },
  torque: { label: 'Torque', titles: { 'lbf-ft': 'lbf·ft', Nm: 'N·m' } },
  temperature: { label: 'Temperatures', titles: { degC: '°C', degF: '°F' } },
  volume: { label: 'Lubricant by volume', titles: { L: 'Litres', qt: 'US quarts' } },
};

const kinds = Object.keys(choices) as (keyof ReaderUnits)[];

interface Props {
  units: ReaderUnits;
  onChange: (units: ReaderUnits) => void;
}

/** The unit of each kind of quantity, or all of them at once. */
export function UnitFields({ units, onChange }: Props) {
  return (
    <>
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => onChange(metricReader)}>All metric</Button>
        <Button onClick={() => onChange(inchReader)}>All inch and pound</Button>
      </div>
      <div className="grid gap-4 sm:grid-cols-2 md:grid-cols-3">
        {kinds.map((kind) => {
          const { label, titles } = choices[kind];
          return (
            <SelectField
              key={kind}
              label={label}
              value={units[kind]}
              onChange={(e) => onChange({ ...units, [kind]: e.target.value })}
            >
              {Object.entries(titles).map(([unit, title]) => (
                <option key={unit} value={unit}>
                  {title}
                </option>
              ))}
            </SelectField>
          );
        })}
      </div>
    </>
  );
}
