import { execFile, spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { serverFlags } from '../../scripts/serverFlags.mjs';

const DEMO = 'FENVO_TEST_DEMO';

/** A port that was free a moment ago. */
function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });
}

/**
 * A new data folder with the demo data. Made once a run: what follows are copies.
 *
 * @throws Error where the demo data cannot be made.
 */
async function demoFolder(): Promise<string> {
  const data = mkdtempSync(path.join(tmpdir(), 'fenvo-data-'));
  const made = process.env[DEMO];
  if (made) cpSync(made, data, { recursive: true });
  else await promisify(execFile)(process.execPath, ['dist/seed.mjs'], { env: { ...process.env, FENVO_DATA: data } });
  return data;
}

/** Makes the demo data that all applications of this run begin with; the way to take it away again. */
export async function prepareDemo(): Promise<() => void> {
  const made = await demoFolder();
  process.env[DEMO] = made;
  return () => rmSync(made, { recursive: true, force: true });
}

/** The built application on a port and a data folder of its own. */
export class Application {
  private child: ChildProcess | null = null;

  private constructor(
    readonly port: number,
    readonly data: string,
    /** Where paired phones would come in, on this machine alone. */
    private readonly lanPort: number | null,
    private readonly cold: boolean,
  ) {}

  /** @param options `cold` where no page is looked at: a start that reads none. */
  static async open({ lan = false, cold = false } = {}): Promise<Application> {
    const data = await demoFolder();
    const application = new Application(await freePort(), data, lan ? await freePort() : null, cold);
    await application.start();
    return application;
  }

  /** Memory that the server takes now, MB; Linux. */
  get megabytes(): number {
    const status = readFileSync(`/proc/${this.child?.pid ?? 0}/status`, 'utf8');
    return Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024;
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  private get options(): string[] {
    const lan = this.lanPort === null ? [] : ['--lan', '--lan-host', '127.0.0.1', '--lan-port', String(this.lanPort)];
    return ['--port', String(this.port), ...lan, ...(this.cold ? ['--cold'] : [])];
  }

  async start(): Promise<void> {
    this.child = spawn(process.execPath, [...serverFlags, 'dist/serve.mjs', ...this.options], {
      env: {
        ...process.env,
        NODE_ENV: 'production',
        FENVO_DATA: this.data,
        FENVO_PORT: String(this.port),
        NEXT_TELEMETRY_DISABLED: '1',
      },
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    for (let i = 0; i < 200; i++) {
      const answer = await fetch(`${this.url}/api/health`).catch(() => null);
      if (answer?.ok) return;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    throw new Error('the application did not answer');
  }

  /** Ends the process that this started, at once by default: as a crash would. */
  stop(signal: NodeJS.Signals = 'SIGKILL'): Promise<void> {
    const { child } = this;
    this.child = null;
    if (!child || child.exitCode !== null) return Promise.resolve();
    return new Promise((resolve) => {
      child.once('exit', () => resolve());
      child.kill(signal);
    });
  }

  async close(): Promise<void> {
    await this.stop();
    rmSync(this.data, { recursive: true, force: true });
  }
}
