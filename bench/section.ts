import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';

const FILE = 'docs/figures.md';
const HEAD = `# Figures

Written by the programs that measure, section by section: machine, date and commit stand under each heading.
`;

/** Where these figures come from. */
function origin(): string {
  const commit = execFileSync('git', ['rev-parse', '--short', 'HEAD'], { encoding: 'utf8' }).trim();
  const megahertz = cpus()[0]?.speed ?? 0;
  const speed = megahertz > 0 ? ` of ${(megahertz / 1000).toFixed(1)} GHz` : '';
  const day = new Date().toISOString().slice(0, 10);
  return `${cpus().length} cores${speed}; Node ${process.versions.node}; ${day}; ${commit}`;
}

/** Figures beside what is wanted of each: printed as they are found, kept as a section of docs/figures.md. */
export class Section {
  private readonly rows: string[] = [];

  constructor(
    private readonly name: string,
    private readonly title: string,
    private readonly lead: string,
  ) {}

  add(what: string, figures: string, goal = ''): void {
    console.log(`${what}: ${figures}${goal && ` (goal: ${goal})`}`);
    this.rows.push(`| ${what} | ${figures} | ${goal} |`);
  }

  write(): void {
    writeSection(this.name, this.title, [
      this.lead,
      '',
      '| what | figures | goal |',
      '| --- | --- | --- |',
      ...this.rows,
    ]);
  }
}

/** Puts a section in docs/figures.md, in the place of the one of that name. */
export function writeSection(name: string, title: string, lines: readonly string[]): void {
  const before = existsSync(FILE) ? readFileSync(FILE, 'utf8') : HEAD;
  const section = `<!-- ${name} -->\n\n## ${title}\n\n${origin()}\n\n${lines.join('\n')}\n\n<!-- end of ${name} -->\n`;
  const there = new RegExp(`<!-- ${name} -->.*<!-- end of ${name} -->\n`, 's');
  writeFileSync(FILE, there.test(before) ? before.replace(there, () => section) : `${before}\n${section}`);
  execFileSync(process.execPath, ['node_modules/prettier/bin/prettier.cjs', '--log-level', 'warn', '--write', FILE]);
}
