'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { applyEdits, editsOf, knobPlace, placeName, showNumber, showRange, withNames } from '@/core';
import type { Edit, Patch, Solution, SolveAnswer } from '@/core';
import type { EditDesk } from '@/ui/session/edit';
import { fonts, ink } from '@/ui/theme/tokens';
import { ApplyOrPreview } from '../preview/ApplyOrPreview';
import { usePreview } from '../preview/usePreview';

interface Props {
  readonly patch: Patch;
  readonly answer: SolveAnswer;
  readonly edit: EditDesk;
}

/** What the solver found: answers to choose from, or what stands in the way. */
export function Answers(props: Props) {
  return (
    <>
      {props.answer.partial && (
        <Alert severity="info" data-partial>
          Time ran out before every setting was tried: this is the best so far.
        </Alert>
      )}
      <Whole {...props} />
    </>
  );
}

function Whole(props: Props) {
  const { answer } = props;
  if (!answer.feasible) return <Impossible {...props} />;
  const [first] = answer.solutions;
  if (first?.moved === 0 && first.jumpers.length === 0)
    return <Alert severity="success">All targets are already met.</Alert>;
  return (
    <Box role="list" aria-label="Solutions">
      {answer.solutions.map((solution, i) => (
        <Answer key={i} number={i + 1} solution={solution} {...props} />
      ))}
    </Box>
  );
}

/** Edits as a preview, with the knobs of a solution where they are one's. */
function useEdits(
  { patch, edit }: Omit<Props, 'answer'>,
  edits: readonly Edit[],
  label: string,
  solution: Solution | null = null,
) {
  const preview = usePreview(() => ({
    patch: applyEdits(patch, edits),
    ...(solution && { knobs: new Map(solution.settings.map((s) => [s.at, s.value])) }),
  }));
  return { preview, label, apply: () => edit(label, edits) };
}

const knobName = (patch: Patch, at: string): string => knobPlace(patch.modules, at);

/** Why, with the knobs by the names that they have in the editor. */
const inWords = (patch: Patch, { why, settings, jumpers, targets }: Solution): string => {
  const knobs = [...settings, ...jumpers].reduce((text, { at }) => text.replaceAll(at, knobName(patch, at)), why);
  return targets.reduce((text, { at }) => text.replaceAll(at, placeName(patch.modules, at)), knobs);
};

/** One answer: what moves, what it reaches, and why it stands where it does. */
function Answer({ number, solution, ...props }: Props & { readonly number: number; readonly solution: Solution }) {
  const { patch } = props;
  const told = solution.settings.map((s) => `${knobName(patch, s.at)} ${showNumber(s.value, 2)}`).join(', ');
  const { preview, apply } = useEdits(props, editsOf(solution), `Apply solution ${number}: ${told}`, solution);
  return (
    <Box
      role="listitem"
      data-answer={number}
      {...preview.area}
      sx={{ borderTop: `1px solid ${ink.line}`, py: 0.75, ...(preview.showing && { background: ink.paper }) }}
    >
      <Box sx={{ fontWeight: 700 }}>{`${number}. ${inWords(patch, solution)}`}</Box>
      <Knobs patch={patch} solution={solution} />
      <Reached patch={patch} solution={solution} />
      <ApplyOrPreview preview={preview} label="Apply" onApply={apply} />
    </Box>
  );
}

function Knobs({ patch, solution }: { readonly patch: Patch; readonly solution: Solution }) {
  return (
    <Box component="ul" sx={{ m: 0, p: 0, listStyle: 'none', fontSize: 13 }}>
      {solution.jumpers.map((j) => (
        <li key={j.at}>{`${knobName(patch, j.at)}: ${String(j.from)} → ${String(j.value)}`}</li>
      ))}
      {solution.settings.map((s) => (
        <li key={s.at} data-knob-to={s.at}>
          {`${knobName(patch, s.at)}: `}
          <Box component="span" sx={{ fontFamily: fonts.numbers, whiteSpace: 'nowrap' }}>
            {`${showNumber(s.from, 2)} → ${showNumber(s.value, 2)}`}
          </Box>
          {` at ${s.clock}`}
        </li>
      ))}
    </Box>
  );
}

/** The range that is reached, and what the usual errors of knobs and gains make of its ends. */
function Reached({ patch, solution }: { readonly patch: Patch; readonly solution: Solution }) {
  return (
    <Box sx={{ fontSize: 13, color: ink.softInk }}>
      {solution.targets.map((t, i) => {
        const spread = solution.tolerance.find((s) => s.at === t.at);
        return (
          <Box key={i}>
            {`${placeName(patch.modules, t.at)}: `}
            <Box component="span" sx={{ fontFamily: fonts.numbers }}>
              {showRange(t.low, t.high, t.unit)}
            </Box>
            {spread && (
              <>
                {'; with tolerance '}
                <Box component="span" sx={{ fontFamily: fonts.numbers }}>
                  {`${showRange(spread.low[0], spread.high[1], spread.unit)}`}
                </Box>
              </>
            )}
          </Box>
        );
      })}
    </Box>
  );
}

/** What cannot be: which knobs run out, the nearest, and the change that would do. */
function Impossible(props: Props) {
  const { answer, patch } = props;
  const { nearest, limits, suggestion, contradictory } = answer;
  const says = suggestion && withNames(applyEdits(patch, suggestion.edits).modules, suggestion.text);
  const change = useEdits(props, suggestion?.edits ?? [], says ?? '');
  const near = useEdits(props, nearest ? editsOf(nearest) : [], 'Apply closest match', nearest);
  return (
    <Box data-impossible>
      <Alert severity="warning">
        The unlocked knobs can’t reach this target.
        {limits.map((l) => (
          <Box key={l.at} data-limit={l.at}>
            {`${knobName(patch, l.at)} stops at ${showNumber(l.limit, 2)}; it would need ${showNumber(l.needs, 2)} (${showNumber(l.short, 2)} more).`}
          </Box>
        ))}
        {contradictory.map(([a, b]) => (
          <Box
            key={`${a} ${b}`}
          >{`The targets at ${placeName(patch.modules, a)} and ${placeName(patch.modules, b)} conflict.`}</Box>
        ))}
      </Alert>
      {suggestion && (
        <Box sx={{ py: 0.75 }} data-suggestion>
          <Box>{says}</Box>
          {suggestion.edits.length > 0 && (
            <ApplyOrPreview preview={change.preview} label="Apply this change" onApply={change.apply} />
          )}
        </Box>
      )}
      {nearest && nearest.settings.length > 0 && (
        <Box sx={{ borderTop: `1px solid ${ink.line}`, py: 0.75 }} data-nearest-answer>
          <Box sx={{ fontWeight: 700 }}>Closest match</Box>
          <Knobs patch={patch} solution={nearest} />
          <Reached patch={patch} solution={nearest} />
          <ApplyOrPreview preview={near.preview} label="Apply closest match" onApply={near.apply} />
        </Box>
      )}
    </Box>
  );
}
