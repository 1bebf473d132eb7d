import { cleanup, screen, waitFor, within } from '@testing-library/react';
import type userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { openingOn, supervisor, technician, TestJob } from '../../../core/src/traveller/testing/work.ts';
import { heading, jobAt, onFreshDevice, openPage, step } from './testing/open-page.tsx';

onFreshDevice();

describe('somebody who does not work at the bench', () => {
  it('sees what is at hand, and nothing to press for it', async () => {
    await openPage(jobAt('seat'), { ...technician, role: 'storekeeper' });
    await heading('Seat the bearings');
    expect(step().getByText(/You look on here/)).toBeDefined();
    expect(step().queryByRole('button', { name: 'Record the torque' })).toBeNull();
    expect(screen.queryByRole('button', { name: /^Hold/ })).toBeNull();
  });
});

describe('torque', () => {
  it('wants tool and torque, pre-fills neither, and takes the other unit', async () => {
    const { sent, user } = await openPage(jobAt('seat'));
    await heading('Seat the bearings');
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    expect(step().getByText('Which tool')).toBeDefined();
    await user.clear(step().getByLabelText(/^Reached/));
    await user.type(step().getByLabelText(/^Reached/), '271 Nm');
    await user.type(step().getByLabelText('Torque wrench'), 'TW-03');
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    await heading('Rotate the wheel');
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({
      data: { kind: 'torque', torque: { value: 271, unit: 'Nm' }, tool: 'TW-03', rounds: 1 },
    });
  });

  it('off the figure asks why before it records', async () => {
    const { sent, user } = await openPage(jobAt('seat'));
    await user.clear(await step().findByLabelText(/^Reached/));
    await user.type(step().getByLabelText(/^Reached/), '150');
    await user.type(step().getByLabelText('Torque wrench'), 'TW-03');
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    expect(step().getByText('Enter a reason')).toBeDefined();
    expect(sent).toHaveLength(0);
    await user.type(step().getByLabelText(/off the sheet/), 'worn thread');
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { note: 'worn thread' } }));
  });
});

describe('turns and choices', () => {
  it('draws the back-off and records it as the sheet has it', async () => {
    const { sent, user } = await openPage(jobAt('back-off'));
    expect(await step().findByRole('img', { name: 'Back off 1/4 turn, 90 degrees' })).toBeDefined();
    await user.click(step().getByRole('button', { name: 'Backed off 1/4 turn' }));
    await heading('Locking washer on');
    await user.click(step().getByRole('button', { name: 'Washer turned over' }));
    await heading('Jam nut');
    await waitFor(() =>
      expect(sent.map((c) => c.kind === 'step-recorded' && c.data)).toEqual([
        { kind: 'turn', turns: -0.25, planned: -0.25 },
        { kind: 'choose', option: 'turned-over' },
      ]),
    );
  });

  it('an inspection that says no wants words', async () => {
    const { sent, user } = await openPage(jobAt('sensor'));
    await user.click(await step().findByRole('button', { name: 'No' }));
    const record = step().getByRole('button', { name: 'Record what was found' });
    expect(record).toHaveProperty('disabled', true);
    await user.type(step().getByLabelText('What was found'), 'feeler goes in');
    await user.click(record);
    await waitFor(() =>
      expect(sent[0]).toMatchObject({ data: { kind: 'inspect', ok: false, note: 'feeler goes in' } }),
    );
  });

  it('the lock wants its method and cannot be left out', async () => {
    const { sent, user } = await openPage(jobAt('lock'));
    await heading('Lock the nut');
    expect(step().getByRole('button', { name: 'Record the lock' })).toHaveProperty('disabled', true);
    expect(step().queryByRole('button', { name: 'Skip this step' })).toBeNull();
    await user.click(step().getByLabelText('Two tangs bent'));
    await user.click(step().getByRole('button', { name: 'Record the lock' }));
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { kind: 'lock', method: 'two-tangs' } }));
  });

  it('a step that may be left out wants its reason', async () => {
    const { sent, user } = await openPage(jobAt('sensor'));
    await user.click(await step().findByRole('button', { name: 'Skip this step' }));
    expect(step().getByRole('button', { name: 'Skip it' })).toHaveProperty('disabled', true);
    await user.type(step().getByLabelText('Why it is skipped'), 'Lead on order');
    await user.click(step().getByRole('button', { name: 'Skip it' }));
    await waitFor(() => expect(sent[0]).toMatchObject({ kind: 'step-skipped', reason: 'Lead on order' }));
  });

  it('a turn that was made otherwise is recorded as made, beside the plan', async () => {
    const { sent, user } = await openPage(jobAt('back-off'));
    await user.type(await step().findByLabelText(/^Turned otherwise/), '105');
    await user.click(step().getByRole('button', { name: 'Backed off 105°' }));
    await waitFor(() =>
      expect(sent[0]).toMatchObject({ data: { kind: 'turn', turns: -105 / 360, planned: -0.25 } }),
    );
  });
});

describe('measuring', () => {
  const cycle = async (user: ReturnType<typeof userEvent.setup>, push: string, pull: string) => {
    await user.type(step().getByLabelText(/^Pushed in/), `${push}{Enter}`);
    await user.type(step().getByLabelText(/^Pulled out/), `${pull}{Enter}`);
  };

  it('takes cycles by key alone, says which way and how far, and goes back with the plan', async () => {
    const { sent, user } = await openPage(jobAt('end-play'));
    await heading('Measure end play');
    await cycle(user, '0', '0.0085');
    expect(step().getByText('2 more cycles')).toBeDefined();
    await cycle(user, '0', '8.1 thou');
    await cycle(user, '0', '0.0083');
    expect(await step().findByText('Loose by 0.0033')).toBeDefined();
    await user.click(step().getByRole('button', { name: 'Go back to Adjust, tighten 1/16 turn' }));
    await heading('Jam nut and washer off');
    await waitFor(() => expect(sent).toHaveLength(4));
    expect(sent[3]).toMatchObject({ kind: 'adjust-reopened', from: 'setting', turns: 1 / 16 });
  });

  it('takes push and pull typed at once, and keeps what is no pair', async () => {
    const { sent, user } = await openPage(jobAt('end-play'));
    await heading('Measure end play');
    await user.type(step().getByLabelText(/^Pushed in/), '.2 4.5 thou{Enter}');
    const [push, pull] = [0.2, 4.5].map((value) => ({ value, unit: 'thou' }));
    await waitFor(() => expect(sent).toMatchObject([{ kind: 'reading-taken', push, pull, source: 'typed' }]));
    await user.type(step().getByLabelText(/^Pushed in/), '0 0.0031 0.0032{Enter}');
    expect(step().getByText(/is not a figure/)).toBeDefined();
    expect(step().getByLabelText(/^Pushed in/)).toHaveProperty('value', '0 0.0031 0.0032');
    expect(sent).toHaveLength(1);
  });

  it('keeps what was typed when it is no figure, and says so at the field', async () => {
    const { sent, user } = await openPage(jobAt('end-play'));
    await heading('Measure end play');
    await user.type(step().getByLabelText(/^Pushed in/), 'three{Enter}');
    expect(step().getByText('"three" is not a figure')).toBeDefined();
    expect(step().getByLabelText(/^Pushed in/)).toHaveProperty('value', 'three');
    expect(sent).toHaveLength(0);
  });

  it('a caravan may be accepted by feel, recorded as feel', async () => {
    const { sent, user } = await openPage(jobAt('end-play', 'd-towed'));
    await user.click(await step().findByRole('button', { name: 'No movement felt, spins freely' }));
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { kind: 'measure', by: 'feel' } }));
  });
});

describe('looking back and releasing', () => {
  it('shows what a stage holds and strikes a record out with a reason', async () => {
    const { sent, user } = await openPage(jobAt('end-play'));
    await user.click(await screen.findByRole('button', { name: 'Adjust, 2L: done' }));
    await heading('Adjust');
    const line = step().getByText('Jam nut').closest('li')!;
    await user.click(within(line).getByRole('button', { name: 'Strike out' }));
    await user.click(within(line).getByRole('button', { name: 'Strike out this record' }));
    expect(within(line).getByText('Enter a reason')).toBeDefined();
    await user.type(within(line).getByLabelText('Why it is wrong'), 'wrong wrench');
    await user.click(within(line).getByRole('button', { name: 'Strike out this record' }));
    await heading('Jam nut');
    await waitFor(() =>
      expect(sent[0]).toMatchObject({ kind: 'correction', reason: 'wrong wrench', replacement: null }),
    );
  });

  it('a technician is told who releases; a supervisor releases and the retorque opens', async () => {
    await openPage(jobAt(undefined));
    expect(await step().findByText(/A supervisor releases 2L/)).toBeDefined();
    cleanup();
    const { user } = await openPage(jobAt(undefined), supervisor);
    await user.click(await step().findByRole('button', { name: 'Release 2L' }));
    expect(await step().findByText(/Released by Sup/)).toBeDefined();
    expect(step().getByText(/Retorque due between 611,320 km and 611,400 km/)).toBeDefined();
    await user.click(step().getByRole('button', { name: 'Record the retorque of 2L' }));
    expect(step().getByLabelText(/^Reached/)).toHaveProperty('value', '');
    await user.type(step().getByLabelText(/^Reached/), '450');
    await user.click(step().getByRole('button', { name: 'Record the retorque of 2L' }));
    expect(step().getByText('Which torque wrench')).toBeDefined();
  });

  it('what stands against a release is listed, and the override wants a reason', async () => {
    const t = new TestJob(openingOn(['2L']));
    t.workTo('2L', 'sensor');
    t.skip('2L', 'lead on order');
    t.workTo('2L');
    const { user } = await openPage(t, supervisor);
    expect(
      await step().findByText('Assemble, “Sensor and tone ring” was skipped: lead on order'),
    ).toBeDefined();
    const release = step().getByRole('button', { name: 'Release 2L in spite of this' });
    expect(release).toHaveProperty('disabled', true);
    await user.type(step().getByLabelText(/Your reason/), 'yard');
    await user.click(release);
    expect(await step().findByText(/in a sentence/)).toBeDefined();
    await user.type(step().getByLabelText(/Your reason/), ' work only until the lead is here');
    await user.click(release);
    expect(await step().findByText('Reason: yard work only until the lead is here')).toBeDefined();
  });
});

describe('the whole unit', () => {
  it('is released together when nothing stands against any of its wheel ends', async () => {
    const t = new TestJob();
    t.workTo('2L');
    const { sent, user } = await openPage(t, supervisor);
    await heading('Release 2L');
    expect(screen.queryByRole('button', { name: /together/ })).toBeNull();
    cleanup();
    t.workTo('2R');
    const whole = await openPage(t, supervisor);
    await user.click(await screen.findByRole('button', { name: 'Release 2L and 2R together' }));
    await waitFor(() => expect(whole.sent).toHaveLength(2));
    expect(t.job.wheelEnds.every((w) => w.release !== null)).toBe(true);
    expect(sent).toHaveLength(0);
  });
});

describe('the intake', () => {
  it('is put right with a reason, its meter read as typed', async () => {
    const t = new TestJob();
    const { sent, user } = await openPage(t);
    await user.click(await screen.findByRole('button', { name: /^Intake, 2L/ }));
    await user.click(step().getByRole('button', { name: 'Correct the intake' }));
    const meter = step().getByLabelText('Should be on the meter');
    await user.clear(meter);
    await user.type(meter, '380 thousand');
    await user.click(step().getByRole('button', { name: 'Correct the intake' }));
    expect(step().getByText(/is not/)).toBeDefined();
    await user.clear(meter);
    await user.type(meter, '380,000 mi');
    await user.click(step().getByRole('button', { name: 'Correct the intake' }));
    expect(step().getByText('Enter a reason')).toBeDefined();
    await user.click(step().getByLabelText('Noise from the wheel'));
    await user.type(step().getByLabelText('Why it is wrong'), 'Read as km');
    await user.click(step().getByRole('button', { name: 'Correct the intake' }));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(t.job).toMatchObject({ symptoms: ['noise'], meter: { distance: { value: 380_000, unit: 'mi' } } });
  });
});
