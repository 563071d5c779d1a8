import { describe, expect, it } from 'vitest';
import { storePatch } from './support/desk';
import { openPages } from './support/pages';

const { at } = openPages({ alone: true });

describe('a sheet on a phone of the local network', () => {
  it('is paired by a code, ticked there, seen at the desk, and ended', async () => {
    const { page, desk } = at;
    const id = await storePatch(at.url, {
      format: 'fenvo.patch',
      version: 1,
      name: 'Two stages',
      modules: [
        { id: 'slow', kind: 'lfo' },
        { id: 'trim', kind: 'offset' },
      ],
      cables: [{ from: 'slow.out', to: 'trim.in' }],
    });
    await desk.goTo(`/patches/${id}/sheet`);
    await page.waitForSelector('[data-step]');
    await desk.button('Open on phone');
    await desk.button('Show pairing code');
    const code = await page.waitForSelector('[data-pairing]');
    const url = await code!.evaluate((e) => e.getAttribute('data-pairing') ?? '');
    expect(url).toMatch(/^http:\/\/127\.0\.0\.1:\d+\/pair\?code=/);
    await page.waitForSelector('[aria-label="QR code of the address"] path');

    const phone = (await at.newPage()).page;
    await phone.setViewport({ width: 390, height: 844, isMobile: true, hasTouch: true });
    // A look at the link, as a preview takes it, spends no code.
    expect((await fetch(url)).status).toBe(200);
    await phone.goto(url, { waitUntil: 'domcontentloaded' });
    await Promise.all([phone.waitForNavigation({ waitUntil: 'domcontentloaded' }), phone.click('button[type=submit]')]);
    expect(new URL(phone.url()).pathname).toBe('/');
    await phone.click('[data-tick="set-slow"]');
    await phone.type('[data-read="measure-slow.out"][data-quantity=low]', '-4,99 V');
    await phone.keyboard.press('Tab');
    await phone.waitForSelector('.verdict.good');
    await phone.type('[data-read="measure-slow.out"][data-quantity=high]', '3');
    await phone.keyboard.press('Tab');
    await phone.waitForSelector('.verdict.wrong');
    await phone.waitForSelector('body[data-sent=true]');
    expect(await phone.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0);
    const ticks = async () =>
      (await (await fetch(`${at.url}/api/patches/${id}/ticks`)).json()) as {
        ticks: Record<string, { done: boolean; reads?: Record<string, string> }>;
        session: string | null;
      };
    await expect
      .poll(async () => (await ticks()).ticks['measure-slow.out']?.reads, { timeout: 10_000 })
      .toEqual({ low: '-4,99 V', high: '3' });
    // One session with the screen's, each reading judged.
    const { session } = await ticks();
    const kept = (await (await fetch(`${at.url}/api/bench/sessions/${session}`)).json()) as {
      list: { quantity: string; value: number; verdict: string }[];
    };
    expect(kept.list.map((r) => [r.quantity, r.value, r.verdict])).toEqual([
      ['low', -4.99, 'good'],
      ['high', 3, 'wrong'],
    ]);
    // A page looks only while it is looked at.
    await page.bringToFront();
    await page.waitForSelector('[data-expect=high][data-verdict=wrong]', { timeout: 15_000 });
    expect((await ticks()).ticks['set-slow']!.done).toBe(true);

    // The same code again, and anything but the sheet, are refused.
    const lan = new URL(url).origin;
    const again = new URLSearchParams({ code: new URL(url).searchParams.get('code') ?? '' });
    expect((await fetch(`${lan}/pair`, { method: 'POST', body: again })).status).toBe(403);
    expect((await fetch(`${lan}/api/patches`)).status).toBe(403);
    const end = await page.waitForSelector('[data-phone] button');
    await end!.click();
    await page.waitForSelector('[data-phone]', { hidden: true });
    const after = await phone.evaluate(async () => (await fetch('/ticks')).status);
    expect(after).toBe(403);
    at.expectFault(/403/);
  });
});

describe('the editor on a phone', () => {
  it('lays the knobs of a stage over the path, and puts them aside for the inspector, which has them too', async () => {
    const { page, desk } = at;
    await page.setViewport({ width: 390, height: 844 });
    await desk.open('lamp-sweep-shut');
    await page.locator('[data-frame=beam]').click();
    await page.waitForSelector('[data-phone-knobs=beam]');
    await desk.button('All settings');
    await page.waitForSelector('[data-phone-knobs]', { hidden: true });
    expect(await page.evaluate(() => document.activeElement?.id)).toBe('inspector');
    await desk.section('hardware');
    await page.evaluate(() => scrollTo(0, 0));
    await page.waitForSelector('[data-phone-knobs=beam]');
    await desk.issues();
    await page.waitForSelector('[data-phone-knobs]', { hidden: true });
  });
});
