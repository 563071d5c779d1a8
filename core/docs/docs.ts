import { allRules } from '../findings';
import { allKinds } from '../kinds';
import type { Kind } from '../kinds/kind';
import type { ParamSpec } from '../kinds/params';
import { scaleNames } from '../units/scales';
import { completeParams } from '../document/params';

const cell = (text: string): string => text.replace(/\|/g, '\\|');
const code = (text: string | number | boolean | null): string => `\`${String(text)}\``;

function limitsOf(spec: ParamSpec): string {
  switch (spec.type) {
    case 'number': {
      const own = spec.limits ? ', within its own range' : '';
      return `${spec.min} to ${spec.max}${spec.unit ? ` ${spec.unit}` : ''}${spec.whole ? ', whole' : ''}${spec.nullable ? ', or null' : ''}${own}`;
    }
    case 'choice':
      return spec.options.map(code).join(', ');
    case 'flag':
      return 'true, false';
    case 'text':
      return `text of at most ${spec.longest} characters`;
    case 'points':
      return `1 to ${spec.most} of {t, volts}`;
    case 'steps':
      return `1 to ${spec.most} of {volts, gate, tie}`;
    case 'scale':
      return `${scaleNames.map(code).join(', ')}, or semitones 0 to 12`;
  }
}

function defaultOf(spec: ParamSpec): string {
  if (spec.type === 'number' && spec.fromSetting) return 'the setting bpm';
  return typeof spec.default === 'object' && spec.default !== null
    ? code(JSON.stringify(spec.default))
    : code(spec.default);
}

function kindSection(kind: Kind): string {
  const params = completeParams(kind);
  const inputs = kind.inputs(params).map((s) => {
    const normal = s.normal !== 0 ? `, normalled to ${s.normal} V` : '';
    return `${code(s.name)} (${s.role}${s.threshold === undefined ? '' : ` at ${s.threshold} V`}${normal})`;
  });
  const rows = Object.entries(kind.params).map(
    ([name, spec]) =>
      `| ${code(name)} | ${cell(defaultOf(spec))} | ${cell(limitsOf(spec))} | ${cell(spec.says ?? '')} |`,
  );
  const table = rows.length > 0 ? ['', '| parameter | default | limits | |', '| --- | --- | --- | --- |', ...rows] : [];
  const ends = (kind.ends ?? []).map(
    (e) => `${code(e.socket)}: ${e.quantity} (${e.unit(params) || 'its own unit'}), ${e.says}`,
  );
  return [
    `## ${code(kind.name)}: ${kind.title}`,
    '',
    `${kind.does.charAt(0).toUpperCase()}${kind.does.slice(1)}. ${kind.sound?.audioRate ? 'Runs at audio rate.' : ''}`.trim(),
    '',
    `- inputs: ${inputs.join(', ') || 'none'}`,
    `- outputs: ${kind.outputs(params).map(code).join(', ') || 'none'}`,
    `- law: ${kind.formula}`,
    ...(ends.length > 0 ? [`- destination reading: ${ends.join('; ')}`] : []),
    ...table,
    '',
  ].join('\n');
}

/** `docs/kinds.md`, made from the kinds' own declarations. */
export function kindsPage(): string {
  const head =
    'Generated from the kind definitions by `npm run docs`. The sockets and limits are the ones the parser enforces.';
  return `# Kinds\n\n${head}\n\n${allKinds.map(kindSection).join('\n')}`;
}

/** `docs/findings.md`, made from the rules. */
export function findingsPage(): string {
  const rows = allRules.map(
    (r) => `| ${code(r.code)} | ${cell(r.title)} | ${cell(r.when)} | ${cell(r.cures ?? '')} | ${cell(r.why)} |`,
  );
  const head =
    'Generated from the rules by `npm run docs`. Percentages of time come from the simulation, worst cases from the guaranteed range.';
  return `# Issues\n\n${head}\n\n| code | title | reported when | fix | why it matters |\n| --- | --- | --- | --- | --- |\n${rows.join('\n')}\n`;
}
