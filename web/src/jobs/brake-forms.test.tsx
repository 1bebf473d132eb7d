import { waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { openingOn, TestJob } from '../../../core/src/traveller/testing/work.ts';
import type { Work } from '@lanternwright/core/stack';
import { heading, onFreshDevice, openPage, step } from './testing/open-page.tsx';

onFreshDevice();

function at(stepId: string, sheetId: string, works: Work[]): TestJob {
  const t = new TestJob(openingOn(['2L'], sheetId, works));
  t.workTo('2L', stepId);
  return t;
}
const press = (name: string) => step().getByRole('button', { name });

describe('a drum', () => {
  it('is measured at as many places as one likes, in mm or inches, against the figure cast into it', async () => {
    const { sent, user } = await openPage(at('brake-wear', 'a-drive-tang', ['brakes']));
    await heading('Drum measured');
    await user.type(step().getByLabelText('Diameter 1, mm'), '420.2');
    await user.type(step().getByLabelText('Diameter 2, mm'), '420.6');
    await user.click(press('Record the measurement'));
    expect(sent).toHaveLength(0);
    await user.type(step().getByLabelText('Discard figure cast into it, mm'), '424');
    expect(step().getByRole('img', { name: /^Worst 420\.6 mm.*, discard figure 424 mm/ })).toBeDefined();
    await user.click(press('Record the measurement'));
    const measured = [{ value: 420.2 }, { value: 420.6 }];
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { kind: 'wear', measured } }));
  });

  it('past its figure is recorded only with what is done about it, and is asked for again', async () => {
    const { sent, user } = await openPage(at('brake-wear', 'a-drive-tang', ['brakes']));
    await heading('Drum measured');
    await user.type(step().getByLabelText('Diameter 1, mm'), '424.8');
    await user.type(step().getByLabelText('Discard figure cast into it, mm'), '424');
    await user.click(press('Record the measurement'));
    expect(sent).toHaveLength(0);
    await user.type(step().getByLabelText('What was found or is done about it'), 'New drum ordered');
    await user.click(press('Record the measurement'));
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { note: 'New drum ordered' } }));
    await heading('Drum measured');
  });
});

describe('a rotor', () => {
  it('has a runout, which asks for its limit', async () => {
    const { sent, user } = await openPage(at('brake-wear', 'f-unitised', ['brakes']));
    await heading('Rotor measured');
    await user.type(step().getByLabelText('Thickness 1, mm'), '39');
    await user.type(step().getByLabelText('Discard figure cast into it, mm'), '37');
    await user.type(step().getByLabelText('Runout, mm'), '0.1');
    await user.click(press('Record the measurement'));
    expect(sent).toHaveLength(0);
    await user.type(step().getByLabelText('Allowed runout, mm'), '0.15');
    await user.click(press('Record the measurement'));
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { runout: { value: 0.1 } } }));
  });
});

describe('the stroke of a chamber', () => {
  const open = async () => {
    const opened = await openPage(at('pushrod-stroke', 'a-drive-tang', ['brakes']));
    await heading('Pushrod stroke');
    await opened.user.type(step().getByLabelText('Face to pin, released, mm'), '70');
    return opened;
  };

  it('is held against its chamber, which nobody has chosen beforehand', async () => {
    const { sent, user } = await open();
    await user.type(step().getByLabelText('Face to pin, applied, mm'), '115');
    await user.click(press('Record the stroke'));
    expect(step().getByText('Choose the chamber')).toBeDefined();
    await user.selectOptions(step().getByLabelText('Chamber, as marked on it'), 'Type 30');
    await user.selectOptions(step().getByLabelText('Stroke of the chamber'), 'Standard stroke');
    await user.click(press('Record the stroke'));
    const data = { kind: 'stroke', chamber: 30, stroke: 'standard', applied: { value: 115 } };
    await waitFor(() => expect(sent[0]).toMatchObject({ data }));
  });

  it('over its limit asks what was found; a chamber that is not listed, for its marked stroke', async () => {
    const { sent, user } = await open();
    await user.type(step().getByLabelText('Face to pin, applied, mm'), '125');
    await user.selectOptions(
      step().getByLabelText('Chamber, as marked on it'),
      'Another, with its stroke marked',
    );
    await user.type(step().getByLabelText('Stroke marked on it, mm'), '60');
    await user.click(press('Record the stroke'));
    expect(sent).toHaveLength(0);
    await user.type(step().getByLabelText('What was found'), 'Bush worn');
    await user.click(press('Record the stroke'));
    await waitFor(() =>
      expect(sent[0]).toMatchObject({ data: { marked: { value: 60 }, note: 'Bush worn' } }),
    );
    await heading('Pushrod stroke');
  });

  it('is of the chamber on file, until somebody reads another on it and says so', async () => {
    const opening = openingOn(['2L'], 'a-drive-tang', ['brakes']);
    const [w] = opening.wheelEnds;
    const stack = w!.route!.stack.map((l) =>
      l.layer === 'brake-outer' ? { ...l, chamberSize: 24 as const, chamberStroke: 'long' as const } : l,
    );
    const t = new TestJob({ ...opening, wheelEnds: [{ ...w!, route: { ...w!.route!, stack } }] });
    t.workTo('2L', 'pushrod-stroke');
    const { sent, user } = await openPage(t);
    await heading('Pushrod stroke');
    expect(step().getByText(/On file: type 24\. Long stroke\./)).toBeDefined();
    expect(step().queryByLabelText('Chamber, as marked on it')).toBeNull();
    await user.type(step().getByLabelText('Face to pin, released, mm'), '70');
    await user.type(step().getByLabelText('Face to pin, applied, mm'), '112');
    await user.click(press('Another is marked on it'));
    await user.selectOptions(step().getByLabelText('Chamber, as marked on it'), 'Type 30');
    await user.selectOptions(step().getByLabelText('Stroke of the chamber'), 'Standard stroke');
    await user.click(press('Record the stroke'));
    expect(sent).toHaveLength(0);
    await user.type(step().getByLabelText('What is marked on it, and why it is another'), '30, new');
    await user.click(press('Record the stroke'));
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { chamber: 30, note: '30, new' } }));
  });
});
