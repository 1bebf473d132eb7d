import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { quantity } from '@lanternwright/core/quantity';
import { openingOn, supervisor, TestJob } from '../../../core/src/traveller/testing/work.ts';
import { heading, jobAt, onFreshDevice, openPage, step } from './testing/open-page.tsx';

onFreshDevice();

const press = (name: string) => step().getByRole('button', { name });

describe('what goes into a hub', () => {
  const atTheFill = async () => {
    const opened = await openPage(jobAt('fill', 'a-drive-dowel'));
    await heading('Shaft in, flange on');
    return opened;
  };

  it('is chosen, not there beforehand: nothing is recorded until lubricant and joint are said', async () => {
    const { sent, user } = await atTheFill();
    const asked = within(step().getByRole('group', { name: /^What goes in/ })).getAllByRole('radio');
    expect(asked.map((r) => (r as HTMLInputElement).checked)).toEqual([false, false]);
    expect(press('Filled and closed')).toHaveProperty('disabled', true);
    await user.click(step().getByLabelText('Gasket'));
    expect(press('Filled and closed')).toHaveProperty('disabled', true);
    await user.click(asked[0]!);
    await user.click(press('Filled and closed'));
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { kind: 'fill', joint: 'gasket' } }));
  });

  it('another than the sheet asks for wants its name and why; an amount that is none is told', async () => {
    const { sent, user } = await atTheFill();
    await user.click(step().getByLabelText('Another'));
    await user.click(step().getByLabelText('Sealant'));
    expect(press('Filled and closed')).toHaveProperty('disabled', true);
    await user.type(step().getByLabelText('Which lubricant'), 'Synthetic 75W-90');
    await user.type(step().getByLabelText(/^Poured in/), 'half a can');
    await user.click(press('Filled and closed'));
    expect(step().getByText('Enter a reason')).toBeDefined();
    expect(sent).toHaveLength(0);
    await user.type(step().getByLabelText(/^The sheet asks for .*why another/), 'The owner asks for it');
    await user.click(press('Filled and closed'));
    expect(sent).toHaveLength(0);
    await user.clear(step().getByLabelText(/^Poured in/));
    await user.type(step().getByLabelText(/^Poured in/), '0.9 L');
    await user.click(press('Filled and closed'));
    await waitFor(() =>
      expect(sent[0]).toMatchObject({
        data: {
          lubricant: 'Synthetic 75W-90',
          amount: { value: 0.9, unit: 'L' },
          note: 'The owner asks for it',
        },
      }),
    );
  });
});

describe('a packed bearing', () => {
  it('says with what and how, and neither is there beforehand', async () => {
    const { sent, user } = await openPage(jobAt('pack', 'd-towed'));
    await step().findByRole('button', { name: 'Bearings packed' });
    await user.click(step().getByLabelText('By hand'));
    expect(press('Bearings packed')).toHaveProperty('disabled', true);
    await user.click(within(step().getByRole('group', { name: /^What goes in/ })).getAllByRole('radio')[0]!);
    await user.click(press('Bearings packed'));
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { kind: 'pack', by: 'hand' } }));
  });
});

describe('a cycle that was misread', () => {
  const atTheReading = async () => {
    const t = jobAt('end-play');
    t.readings('2L', 0.003, 0.013);
    const opened = await openPage(t);
    await opened.user.click((await screen.findAllByRole('button', { name: 'Correct' }))[1]!);
    return { t, ...opened };
  };

  it('is put right with a reason; what was typed first stays in the record', async () => {
    const { t, sent, user } = await atTheReading();
    const pull = screen.getByLabelText('Should be pulled out');
    await user.clear(pull);
    await user.type(pull, '3');
    await user.click(screen.getByRole('button', { name: 'Correct this cycle' }));
    expect(screen.getByText('Enter a reason')).toBeDefined();
    await user.type(screen.getByLabelText('Why it is wrong'), 'Read a turn too far');
    await user.click(screen.getByRole('button', { name: 'Correct this cycle' }));
    expect(sent).toHaveLength(0);
    await user.clear(pull);
    await user.type(pull, '0.003 in');
    await user.click(screen.getByRole('button', { name: 'Correct this cycle' }));
    await waitFor(() => expect(sent[0]).toMatchObject({ kind: 'correction', reason: 'Read a turn too far' }));
    const { round } = t.at('2L').readings.at(-1)!;
    expect(
      t
        .at('2L')
        .readings.filter((r) => r.round === round)
        .map((r) => r.pull.value),
    ).toEqual([0.003, 0.003]);
  });
});

describe('the retorque', () => {
  const released = async (opening = openingOn(['2L'])) => {
    const t = new TestJob(opening);
    t.workTo('2L');
    t.do({ kind: 'wheel-end-released', position: '2L' }, supervisor);
    const opened = await openPage(t);
    await step().findByText(/^Retorque of the/);
    return { t, ...opened };
  };

  it('of a crawler’s sprocket asks for its bolts and its hour meter', async () => {
    const crawler = openingOn(['2L'], 'j-shaft-seal');
    const { sent, user } = await released({ ...crawler, meter: { hours: quantity(4_820, 'h') } });
    expect(step().getByText('Retorque of the sprocket bolts')).toBeDefined();
    expect(step().getByText(/^Retorque due at 4,830 h or by/)).toBeDefined();
    await user.type(step().getByLabelText(/^Reached/), '60 lbf-ft');
    await user.type(step().getByLabelText('Torque wrench'), 'TW-03');
    await user.type(step().getByLabelText('Hours on the meter'), '4,829');
    await user.click(press('Record the retorque of 2L'));
    await waitFor(() =>
      expect(sent[0]).toMatchObject({ kind: 'retorque-recorded', hours: { value: 4_829, unit: 'h' } }),
    );
    expect(sent[0]).not.toHaveProperty('distance');
  });

  it('wants its torque, its wrench, and why when it is off', async () => {
    const { sent, user } = await released();
    await user.type(step().getByLabelText(/^Reached/), '450 mm');
    await user.click(press('Record the retorque of 2L'));
    expect(sent).toHaveLength(0);
    await user.clear(step().getByLabelText(/^Reached/));
    await user.type(step().getByLabelText(/^Reached/), '200 lbf-ft');
    await user.type(step().getByLabelText('Torque wrench'), 'TW-03');
    await user.click(press('Record the retorque of 2L'));
    expect(sent).toHaveLength(0);
    expect(step().getByLabelText(/off the sheet’s figure: why/)).toBeDefined();
    await user.clear(step().getByLabelText(/^Reached/));
    await user.type(step().getByLabelText(/^Reached/), '475 lbf-ft');
    await user.type(step().getByLabelText('Distance on the meter'), '611,360 km');
    await user.click(press('Record the retorque of 2L'));
    await waitFor(() =>
      expect(sent[0]).toMatchObject({
        kind: 'retorque-recorded',
        tool: 'TW-03',
        distance: { value: 611_360, unit: 'km' },
      }),
    );
  });

  it('by an outside workshop is recorded as theirs, with the wrench their paper names', async () => {
    const { sent, user } = await released();
    await user.type(step().getByLabelText(/^Done by, if/), 'Fenholt Tyres');
    await user.type(step().getByLabelText(/^Reached/), '475 lbf-ft');
    await user.type(step().getByLabelText('Torque wrench, as their paper says'), 'theirs, no. 4');
    await user.click(press('Record the retorque of 2L'));
    await waitFor(() => expect(sent[0]).toMatchObject({ doneBy: 'Fenholt Tyres', tool: 'theirs, no. 4' }));
    expect(sent[0]).not.toHaveProperty('listed');
  });
});

describe('what is looked after later', () => {
  it('is of no kind until one is chosen, and has its day', async () => {
    const { sent, user } = await openPage(jobAt(undefined), supervisor);
    await user.click(await step().findByText(/^Look after something later/));
    await user.click(press('Name it'));
    expect(step().getByText('Choose what kind')).toBeDefined();
    await user.selectOptions(step().getByLabelText('What kind'), 'temporary');
    await user.click(press('Name it'));
    expect(step().getByText('By when', { selector: '[id]' })).toBeDefined();
    await user.type(step().getByLabelText(/^By when/), '2026-12-04');
    await user.type(step().getByLabelText('What'), 'Used cap until the new one is in');
    await user.click(press('Name it'));
    await user.click(press('Release 2L'));
    await waitFor(() =>
      expect(sent[0]).toMatchObject({ alsoDue: [{ kind: 'temporary', byDate: '2026-12-04' }] }),
    );
  });
});
