import { z } from 'zod';
import type { MorningStand } from '@lanternwright/contract/shop';
import { problemFields, problemText } from '../api.ts';
import { FormProblem } from '../form-problem.tsx';
import { useChangeMorningMutation, useMorningQuery, useSendMorningMutation } from '../people/people-api.ts';
import { formatTime } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { AreaField, TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useRequestForm } from '../use-request-form.ts';

/** Addresses as a person parts them: by lines, commas or semicolons. */
const addressesIn = (text: string) => text.split(/[\s,;]+/).filter(Boolean);

const formSchema = z.object({ at: z.string(), to: z.string().transform(addressesIn) });

function MorningForm({ start }: { start: MorningStand }) {
  const [save, { error, isLoading, isSuccess }] = useChangeMorningMutation();
  const [send, sending] = useSendMorningMutation();
  const { at, to } = start;
  const form = useRequestForm(formSchema, { at, to: to.join('\n') }, error);
  const { field, handleSubmit, register, watch } = form;
  const wrong = Object.entries(problemFields(error)).find(([path]) => path.startsWith('to'));
  const which = wrong && addressesIn(watch('to'))[Number(wrong[0].split('.')[1])];
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) =>
        void handleSubmit((mail) => {
          sending.reset();
          void save(mail);
        })(e)
      }
    >
      <div className="grid gap-4 md:grid-cols-[160px_1fr]">
        <TextField label="At" type="time" required {...field('at')} />
        <AreaField
          label="Addresses, one per line. Leave empty to send to no one"
          {...register('to')}
          error={wrong && (which ? `${which}: ${wrong[1]}` : wrong[1])}
        />
      </div>
      <FormProblem error={error} />
      {isSuccess && !error && <Note tone="good">Saved.</Note>}
      {sending.isSuccess && <Note tone="good">Sent to whom the shop has saved.</Note>}
      {sending.error && <Note tone="trouble">{problemText(sending.error)}</Note>}
      <div className="flex flex-wrap gap-3">
        <Button type="submit" disabled={isLoading}>
          Save who gets it
        </Button>
        <Button disabled={sending.isLoading || !start.mail} onClick={() => void send()}>
          Send it now
        </Button>
      </div>
    </form>
  );
}

/** The morning's summary by mail: to whom, when, and whether it went out. */
export function MorningSection() {
  const { data, error } = useMorningQuery();
  return (
    <section aria-label="The morning by mail" className="flex flex-col gap-3 border-t border-rule pt-5">
      <h2 className="text-18 font-semibold">The morning by mail</h2>
      <p className="max-w-[70ch] text-14">
        What waits for a decision, what stands in the bays, what comes in, what is overdue and who is away; on
        days on which the shop works.
        {data?.sentAt && ` It went out last ${formatTime(data.sentAt)}.`}
      </p>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      {data && !data.mail && (
        <Note tone="plain">No mail server is set. Whoever looks after the server sets SMTP_URL.</Note>
      )}
      {data && <MorningForm start={data} />}
    </section>
  );
}
