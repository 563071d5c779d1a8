import { beforeEach, describe, expect, it } from 'vitest';
import { openPages } from './support/pages';
import { Reader } from './support/reader';

/** Whole ways through the application by keys alone, and by what its accessibility tree says. */
const { at } = openPages();
let reader: Reader;
/** Goes past the worked example that a new skill begins with; there is none where others have answered it before. */
async function pastExample(): Promise<void> {
  const { name } = await reader.hears('button', /^(Now you|Answer|Trace A)/);
  if (name === 'Now you') await reader.use('button', /^Now you/);
}
beforeEach(async () => {
  await at.desk.keep({ guide: 'off', rack: 'pier-rack', welcome: false });
  reader = await Reader.of(at.page);
});

describe('by keys and what is read out alone', () => {
  it('from a target to the sheet, and its first step ticked', async () => {
    await at.desk.patches();
    await reader.use('button', /^From a target/);
    await reader.hears('dialog', /target/i);
    await reader.type(/^Min/, '200 Hz to 3 kHz');
    await reader.use('button', /^Open in editor/);
    await reader.hears('button', /^Play/);
    await reader.use('button', /^Patch sheet/);
    await reader.reach('checkbox', /./);
    const step = await reader.focused();
    await reader.press('Space');
    await expect.poll(async () => (await reader.focused()).states.checked).toBe('true');
    expect(step.name).not.toBe('');
  });

  it('through exercises: figures by typing, a trace by what is said of it, each with its mark and its steps', async () => {
    await at.desk.goTo('/practice');
    await reader.use('button', /^Practise: Attenuate/);
    await pastExample();
    await reader.type(/^Lowest/, '0');
    await reader.type(/^Highest/, '1');
    await reader.press('Enter');
    await reader.hearsText(/^(Right|Close|Not quite)/);
    await reader.hears('table', /^How it comes about/);
    await reader.use('button', /^End sitting/);
    await reader.use('button', /^Practise: Which of four traces/);
    await pastExample();
    await reader.use('button', /^Trace A: .* volts/);
    await reader.hearsText(/^(Right|Not quite)/);
  });

  it('to the rack: a session, its readings, the fault and what it was', async () => {
    await at.desk.goTo('/bench');
    await reader.use('button', /^New session/);
    await reader.hears('dialog', /^New session/);
    await reader.type(/^Patch/, 'Fog bank', 'combobox');
    await reader.pick(/^Fog bank breathing/);
    await reader.choose(/^Where/, /a fault I choose/);
    await reader.hears('combobox', /^Fault/);
    await reader.use('button', /^Start/);
    await reader.use('button', /^Read all outputs/);
    await reader.hears('table', /^Readings/);
    await reader.use('button', /^Find the fault/);
    await reader.hears('list', /^Possible faults/);
    await reader.use('button', /^It was this one/);
    await reader.hearsText(/^(Correct|Not the fault)/);
  });
});
