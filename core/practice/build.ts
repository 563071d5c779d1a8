import { parsePatch } from '../document/parse';
import { socketAt } from '../document/sockets';
import type { Patch, Settings } from '../document/types';
import type { ParamValue } from '../kinds/params';

interface Part {
  readonly id: string;
  readonly kind: string;
  readonly label: string;
  readonly params: Readonly<Record<string, ParamValue>>;
  readonly outputOhms?: Readonly<Record<string, number>>;
  readonly inputOhms?: Readonly<Record<string, number>>;
}

/** Slow voltages are run at this rate, sound at its own. */
const SLOW_RATE = 2000;

/** Puts a patch of an exercise together, stage by stage. */
export class PatchBuilder {
  private readonly parts: Part[] = [];
  private readonly cables: { readonly from: string; readonly to: string }[] = [];
  private readonly normals: object[] = [];
  private targets: readonly object[] = [];

  /** @returns the module’s id: its label in small letters, with a number where that is taken. */
  add(
    kind: string,
    label: string,
    params: Part['params'] = {},
    electrical: Pick<Part, 'outputOhms' | 'inputOhms'> = {},
  ): string {
    const stem = label.toLowerCase();
    const taken = this.parts.filter((p) => p.id === stem || p.id.startsWith(`${stem}-`)).length;
    const [id, name] = taken === 0 ? [stem, label] : [`${stem}-${taken + 1}`, `${label} ${taken + 1}`];
    this.parts.push({ id, kind, label: name, params, ...electrical });
    return id;
  }

  plug(from: string, to: string): this {
    this.cables.push({ from, to });
    return this;
  }

  normal(to: string, by: { readonly volts: number } | { readonly from: string }): this {
    this.normals.push({ to, ...by });
    return this;
  }

  /** A stage behind an output. @returns its own output. */
  stage(from: string, kind: string, label: string, params: Part['params'] = {}, input = 'in', output = 'out'): string {
    const id = this.add(kind, label, params);
    this.plug(from, socketAt(id, input));
    return socketAt(id, output);
  }

  /** What was set of a module. */
  paramsOf(id: string): Part['params'] {
    return this.parts.find((p) => p.id === id)?.params ?? {};
  }

  wanted(targets: readonly object[]): this {
    this.targets = targets;
    return this;
  }

  /** @throws where what was put together is no patch. */
  patch(name: string, settings: Partial<Settings> = {}): Patch {
    const read = parsePatch({
      format: 'fenvo.patch',
      version: 1,
      name,
      settings: { duration: 4, sampleRate: SLOW_RATE, ...settings },
      modules: this.parts.map(({ params, ...part }) => ({
        ...part,
        ...(Object.keys(params).length > 0 && { params }),
      })),
      cables: this.cables,
      normals: this.normals,
      targets: this.targets,
    });
    if (!read.ok) throw new Error(read.errors.map((e) => `${e.path}: ${e.message}`).join('\n'));
    return read.value;
  }
}
