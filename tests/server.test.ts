import { spawnSync } from 'node:child_process';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openContext } from './support/browser';
import { DeskDriver, fetchPatch } from './support/desk';
import { Application } from './support/setup';

let application: Application;
beforeAll(async () => {
  application = await Application.open();
});
afterAll(() => application.close());

const call = (method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Response> =>
  fetch(`${application.url}/api${path}`, {
    method,
    headers,
    ...(body !== undefined && { body: typeof body === 'string' ? body : JSON.stringify(body) }),
  });

interface Fault {
  readonly error: { readonly code: string; readonly message: string; readonly details: unknown };
}
const faultOf = async (response: Response): Promise<Fault['error'] & { status: number }> => ({
  ...((await response.json()) as Fault).error,
  status: response.status,
});
const patch = (name: string) => ({ format: 'fenvo.patch', version: 1, name, modules: [{ id: 'l', kind: 'lfo' }] });

describe('an address of its own beside phones', () => {
  it('is refused with what to leave out', () => {
    const options = ['dist/serve.mjs', '--host', '192.0.2.7', '--lan'];
    const { status, stderr } = spawnSync(process.execPath, options, { encoding: 'utf8' });
    expect(status).toBe(2);
    expect(stderr.trim()).toMatch(/^--lan gives paired phones an address of their own .* Leave --host out\.$/);
  });
});

describe('patches over the wire', () => {
  it('keeps every save, answers an old base with 409 and both versions', async () => {
    const made = (await (await call('POST', '/patches', { patch: patch('One') })).json()) as {
      id: string;
      revision: number;
    };
    expect(made.revision).toBe(1);
    expect((await call('PUT', `/patches/${made.id}`, { baseRevision: 1, patch: patch('Two') })).status).toBe(200);
    const refused = await faultOf(
      await call('PUT', `/patches/${made.id}`, { baseRevision: 1, patch: patch('Other two') }),
    );
    expect(refused).toMatchObject({
      status: 409,
      code: 'conflict',
      details: { theirs: { revision: 2, patch: { name: 'Two' } }, yours: { patch: { name: 'Other two' } } },
    });
    const { revisions } = (await (await call('GET', `/patches/${made.id}/history`)).json()) as {
      revisions: { name: string }[];
    };
    expect(revisions.map((r) => r.name)).toEqual(['Two', 'One']);
    expect(await (await call('GET', `/patches/${made.id}/history/1`)).json()).toMatchObject({ patch: { name: 'One' } });
  });
  it('of many saves on one base exactly one comes through', async () => {
    const { id } = (await (await call('POST', '/patches', { patch: patch('Race') })).json()) as { id: string };
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        call('PUT', `/patches/${id}`, { baseRevision: 1, patch: patch(`Racer ${i}`) }),
      ),
    );
    expect(answers.map((a) => a.status).sort()).toEqual([200, ...Array<number>(19).fill(409)]);
  });
  it('deletes and restores', async () => {
    const { id } = (await (await call('POST', '/patches', { patch: patch('Gone') })).json()) as { id: string };
    const names = async (query = ''): Promise<string[]> =>
      ((await (await call('GET', `/patches${query}`)).json()) as { patches: { name: string }[] }).patches.map(
        (p) => p.name,
      );
    await call('DELETE', `/patches/${id}`);
    expect(await names()).not.toContain('Gone');
    expect(await names('?deleted=true')).toContain('Gone');
    await call('POST', `/patches/${id}/restore`);
    expect(await names()).toContain('Gone');
  });
  it('refuses bad input in one shape, with the place', async () => {
    expect(
      await faultOf(
        await call('POST', '/patches', {
          patch: { ...patch('x'), modules: [{ id: 'l', kind: 'lfo', params: { rateHz: -1 } }] },
        }),
      ),
    ).toMatchObject({
      status: 400,
      code: 'bad-patch',
      details: [{ path: 'modules[0].params.rateHz' }],
    });
    expect(await faultOf(await call('POST', '/patches', '{"patch":'))).toMatchObject({ status: 400, code: 'bad-json' });
    expect(await faultOf(await call('POST', '/patches', { patch: patch('x'), extra: 1 }))).toMatchObject({
      status: 400,
      code: 'bad-request',
    });
    expect(await faultOf(await call('GET', '/patches/none'))).toMatchObject({ status: 404, code: 'not-found' });
    expect(await faultOf(await call('GET', '/patches/a%20b'))).toMatchObject({ status: 400, code: 'bad-request' });
    expect(await faultOf(await call('GET', '/patches?deleted=maybe'))).toMatchObject({ status: 400 });
    expect(
      await faultOf(
        await call('POST', '/patches', JSON.stringify({ patch: { ...patch('x'), notes: 'n'.repeat(5_100_000) } })),
      ),
    ).toMatchObject({ status: 413, code: 'too-large' });
  });
  it('refuses a foreign host and a foreign page, and says what a page may load', async () => {
    expect(
      await faultOf(await call('GET', '/patches', undefined, { Origin: 'http://elsewhere.example' })),
    ).toMatchObject({ status: 403, code: 'foreign' });
    const { request } = await import('node:http');
    const status = await new Promise<number>((resolve) => {
      request({ host: '127.0.0.1', port: application.port, path: '/', headers: { Host: 'elsewhere.example' } }, (r) =>
        resolve(r.statusCode ?? 0),
      ).end();
    });
    expect(status).toBe(403);
    const policy = (await fetch(application.url)).headers.get('content-security-policy') ?? '';
    expect(policy).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic' 'wasm-unsafe-eval';/);
    expect(policy?.replace("'wasm-unsafe-eval'", '')).not.toMatch(/unsafe-/);
  });
});

describe('a page of a desk', () => {
  const asked = async (dest: string): Promise<string> => {
    const headers = { 'Sec-Fetch-Dest': dest, 'Sec-Fetch-Site': 'same-origin' };
    const answer = await fetch(`${application.url}/patches/fog-bank-breathing`, { headers });
    expect(answer.status).toBe(200);
    return (await answer.text()) + (answer.headers.get('link') ?? '');
  };
  it('has its patch on the way before its scripts; where those are there already, the desk asks for it', async () => {
    expect(await asked('document')).toMatch(
      /preload[^>]*\/api\/patches\/fog-bank-breathing|fog-bank-breathing[^>]*preload/,
    );
    expect(await asked('empty')).not.toContain('/api/patches/fog-bank-breathing');
  });
});

describe('a server that dies', () => {
  let opened: Awaited<ReturnType<typeof openContext>>;
  beforeAll(async () => {
    opened = await openContext();
  });
  afterAll(() => opened.close());
  it('has after SIGKILL what it acknowledged before', async () => {
    const { id } = (await (await call('POST', '/patches', { patch: patch('Kept') })).json()) as { id: string };
    expect((await call('PUT', `/patches/${id}`, { baseRevision: 1, patch: patch('Kept well') })).status).toBe(200);
    await application.stop('SIGKILL');
    await application.start();
    expect(await fetchPatch(application.url, id)).toMatchObject({ revision: 2, patch: { name: 'Kept well' } });
  });

  it('keeps the page where a link is followed while it is gone', async () => {
    const page = await opened.context.newPage();
    const desk = new DeskDriver(page, application.url);
    await desk.open('morse-key-slewed');
    await application.stop('SIGKILL');
    await page.click('header a[href="/"]');
    await page.waitForFunction(() => document.body.textContent?.includes('stayed on this page'));
    expect(page.url()).toContain(`/patches/${desk.id()}`);
    // What is shown for the first time is not here yet: it comes when the server does, and the page stays until then.
    const [stage] = await desk.frames();
    const askedFor = page.waitForRequest((request) => request.url().endsWith('/api/health'));
    await page.click(`[data-frame=${stage}]`);
    await askedFor;
    expect(await page.$(`[data-stage=${stage}]`)).toBeNull();
    await application.start();
    await page.waitForSelector(`[data-stage=${stage}]`);
    await page.click('header a[href="/"]');
    await page.waitForFunction(() => location.pathname === '/');
    await page.close();
  });
  it('works on where the browser keeps nothing, and says that drafts are off', async () => {
    const page = await opened.context.newPage();
    await page.evaluateOnNewDocument(() => {
      const refuse = (): never => {
        throw new DOMException('blocked', 'SecurityError');
      };
      for (const name of ['localStorage', 'sessionStorage'])
        Object.defineProperty(window, name, { get: refuse, configurable: true });
    });
    const desk = new DeskDriver(page, application.url);
    await desk.open('fog-bank-breathing');
    await page.waitForFunction(() => document.body.textContent?.includes('blocks local storage'));
    await desk.stage('trim');
    await desk.type('amount', '0.31');
    await desk.saved();
    const stored = await desk.stored();
    expect(stored.modules.find((m) => m.id === 'trim')?.params?.amount).toBe(0.31);
    await page.close();
  });
  it('loses nothing of an edit made while it was gone: a draft keeps it, the next server gets it', async () => {
    const page = await opened.context.newPage();
    const desk = new DeskDriver(page, application.url);
    await desk.open('fog-bank-breathing');
    const id = desk.id();
    await desk.stage('trim');
    await application.stop('SIGKILL');
    await desk.type('amount', '0.25');
    await page.waitForSelector('[data-save=offline]');
    // The tab is closed without a save; the browser keeps the draft.
    await page.close();
    await application.start();
    const again = await opened.context.newPage();
    const other = new DeskDriver(again, application.url);
    await other.openItself(id);
    // What another tab left is offered beside what is saved, not taken up unasked.
    await again.waitForSelector('#draft-title');
    expect(await again.$eval('[aria-label="Differences"]', (e) => e.textContent)).toContain('0.25');
    await other.button('Recover');
    await other.saved();
    const stored = await other.stored();
    expect(stored.modules.find((m) => m.id === 'trim')?.params?.amount).toBe(0.25);
    expect(
      await again.evaluate(() => Object.keys(localStorage).filter((key) => key.startsWith('fenvo.draft'))),
    ).toEqual([]);
    await again.close();
  });
});
