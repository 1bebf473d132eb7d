import { useState } from 'react';
import { v4 as uuid } from 'uuid';
import { currencies, type ShopSettings } from '@lanternwright/contract/shop';
import { problemFields } from '../api.ts';
import { FormProblem } from '../form-problem.tsx';
import { useChangeSettingsMutation, useShop } from '../people/people-api.ts';
import { Button } from '../ui/button.tsx';
import { AreaField, SelectField, TextField } from '../ui/field.tsx';
import { BackupsSection } from './backups-section.tsx';
import { MorningSection } from './morning-section.tsx';
import { UnitFields } from '../people/unit-fields.tsx';
import { HoursFields } from './hours-fields.tsx';
import { ShiftsSection } from './shifts-section.tsx';
import { Note } from '../ui/problem-note.tsx';

const zones = ['UTC', ...Intl.supportedValuesOf('timeZone').filter((z) => z !== 'UTC')];

/** The time it is now in a zone, so that a wrong one is seen at once. */
function nowIn(zone: string): string {
  return new Intl.DateTimeFormat('en-GB', { timeZone: zone, dateStyle: 'medium', timeStyle: 'short' }).format(
    new Date(),
  );
}

/** The shop's bays, in the order of the Floor. */
function BayFields({
  bays,
  error,
  onChange,
}: {
  bays: ShopSettings['bays'];
  error: string | undefined;
  onChange: (bays: ShopSettings['bays']) => void;
}) {
  return (
    <fieldset className="flex flex-col gap-3">
      <legend className="pb-2 text-18 font-semibold">Bays</legend>
      <div className="grid gap-3 md:grid-cols-2">
        {bays.map((bay, i) => (
          <div key={bay.id} className="grid grid-cols-[1fr_auto] items-end gap-2">
            <TextField
              label={`Name of bay ${i + 1}`}
              required
              maxLength={30}
              value={bay.name}
              onChange={(e) =>
                onChange(bays.map((b) => (b.id === bay.id ? { ...b, name: e.target.value } : b)))
              }
            />
            <Button weight="quiet" onClick={() => onChange(bays.filter((b) => b.id !== bay.id))}>
              Remove
            </Button>
          </div>
        ))}
      </div>
      {error && <p className="text-13 text-rust">{error}</p>}
      <div>
        <Button onClick={() => onChange([...bays, { id: uuid(), name: '' }])}>Add a bay</Button>
      </div>
    </fieldset>
  );
}

function SettingsForm({ start }: { start: ShopSettings }) {
  const [draft, setDraft] = useState(start);
  const [save, { error, isLoading, isSuccess }] = useChangeSettingsMutation();
  const fields = problemFields(error);
  const set = (part: Partial<ShopSettings>) => setDraft({ ...draft, ...part });
  return (
    <form
      className="flex flex-col gap-6"
      onSubmit={(e) => {
        e.preventDefault();
        void save(draft);
      }}
    >
      <fieldset className="grid gap-4 md:grid-cols-2">
        <legend className="pb-2 text-18 font-semibold">On every paper</legend>
        <TextField
          label="Name of the shop"
          required
          value={draft.name}
          onChange={(e) => set({ name: e.target.value })}
          error={fields['name']}
        />
        <AreaField
          label="Address"
          value={draft.address}
          onChange={(e) => set({ address: e.target.value })}
          error={fields['address']}
        />
        <AreaField
          label="Terms, at the foot of estimates and bills"
          value={draft.terms}
          maxLength={600}
          onChange={(e) => set({ terms: e.target.value })}
          error={fields['terms']}
        />
        <SelectField
          label="Paper"
          value={draft.paper}
          onChange={(e) => set({ paper: e.target.value as ShopSettings['paper'] })}
        >
          <option value="a4">A4</option>
          <option value="letter">Letter</option>
        </SelectField>
        <SelectField
          label="Currency of estimates and bills"
          hint="Bills that are written stay as they are"
          value={draft.currency}
          onChange={(e) => set({ currency: e.target.value as ShopSettings['currency'] })}
        >
          {currencies.map((c) => (
            <option key={c}>{c}</option>
          ))}
        </SelectField>
      </fieldset>
      <fieldset className="grid gap-4 md:grid-cols-2">
        <legend className="pb-2 text-18 font-semibold">On every screen</legend>
        <SelectField
          label="The shop’s clock goes by"
          hint={`It is ${nowIn(draft.zone)} there now`}
          value={draft.zone}
          error={fields['zone']}
          onChange={(e) => set({ zone: e.target.value })}
        >
          {zones.map((z) => (
            <option key={z}>{z}</option>
          ))}
        </SelectField>
      </fieldset>
      <fieldset className="flex flex-col gap-4">
        <legend className="pb-2 text-18 font-semibold">Units</legend>
        <p className="text-14 text-muted">
          On papers, and on the screen of whoever has not chosen their own.
        </p>
        <UnitFields units={draft.units} onChange={(units) => set({ units })} />
      </fieldset>
      <BayFields bays={draft.bays} error={fields['bays']} onChange={(bays) => set({ bays })} />
      <HoursFields draft={draft} fields={fields} onChange={set} />
      <FormProblem error={error} />
      {isSuccess && !error && <Note tone="good">Saved, for everybody at once.</Note>}
      <div>
        <Button type="submit" weight="main" disabled={isLoading}>
          Save the settings
        </Button>
      </div>
    </form>
  );
}

/** What is set once for the whole shop. */
export function SettingsPage() {
  const shop = useShop();
  return (
    <main className="mx-auto flex w-full max-w-[960px] flex-col gap-5 p-5">
      <h1 className="text-23">Settings of the shop</h1>
      {shop && <SettingsForm start={shop} />}
      <ShiftsSection />
      <MorningSection />
      <BackupsSection />
    </main>
  );
}
