import { Link } from 'react-router';
import { v4 as uuid } from 'uuid';
import { z } from 'zod';
import { currencies, type ShopSettings } from '@lanternwright/contract/shop';
import { problemFields } from '../api.ts';
import { FormProblem } from '../form-problem.tsx';
import { useChangeSettingsMutation, useShop } from '../people/people-api.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { AreaField, SelectField, TextField } from '../ui/field.tsx';
import { BackupsSection } from './backups-section.tsx';
import { RatesSection } from '../estimates/rates-section.tsx';
import { MorningSection } from './morning-section.tsx';
import { UnitFields } from '../people/unit-fields.tsx';
import { HoursFields } from './hours-fields.tsx';
import { ShiftsSection } from './shifts-section.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useRequestForm } from '../use-request-form.ts';

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

/** The server checks it: half of it is rows, each with its own error. */
const typed = z.custom<ShopSettings>();

function SettingsForm({ start }: { start: ShopSettings }) {
  const [save, { error, isLoading, isSuccess }] = useChangeSettingsMutation();
  const { errorOf, field, handleSubmit, setValue, watch } = useRequestForm(typed, start, error);
  const draft = watch();
  const hours = ({ week, holidays }: Partial<ShopSettings>) => {
    if (week) setValue('week', week);
    if (holidays) setValue('holidays', holidays);
  };
  return (
    <form className="flex flex-col gap-6" onSubmit={(e) => void handleSubmit((all) => save(all))(e)}>
      <fieldset className="grid gap-4 md:grid-cols-2">
        <legend className="pb-2 text-18 font-semibold">On every paper</legend>
        <TextField label="Name of the shop" required {...field('name')} />
        <AreaField label="Address" {...field('address')} />
        <AreaField label="Terms, at the foot of estimates and bills" maxLength={600} {...field('terms')} />
        <SelectField label="Paper" {...field('paper')}>
          <option value="a4">A4</option>
          <option value="letter">Letter</option>
        </SelectField>
        <SelectField
          label="Currency of estimates and bills"
          hint="Bills that are written stay as they are"
          {...field('currency')}
        >
          {currencies.map((c) => (
            <option key={c}>{c}</option>
          ))}
        </SelectField>
      </fieldset>
      <fieldset className="grid gap-4 md:grid-cols-2">
        <legend className="pb-2 text-18 font-semibold">On every screen</legend>
        <SelectField
          label="Time zone of the shop"
          hint={`It is ${nowIn(draft.zone)} there now`}
          {...field('zone')}
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
        <UnitFields units={draft.units} onChange={(units) => setValue('units', units)} />
      </fieldset>
      <BayFields bays={draft.bays} error={errorOf('bays')} onChange={(bays) => setValue('bays', bays)} />
      <HoursFields draft={draft} fields={problemFields(error)} onChange={hours} />
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
      <RatesSection />
      <ShiftsSection />
      <MorningSection />
      <BackupsSection />
      <section aria-label="Other programs" className="flex flex-col gap-3 border-t border-rule pt-5">
        <h2 className="text-18 font-semibold">Other programs</h2>
        <p className="max-w-[70ch] text-14">
          Keys with which other programs read from this shop, and webhooks that notify them of what happens
          here.
        </p>
        <div>
          <Link className={buttonLook()} to="/settings/programs">
            Keys and webhooks
          </Link>
        </div>
      </section>
    </main>
  );
}
