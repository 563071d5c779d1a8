import { inSentence, paramLabel } from '@/core';
import type { GraphModule, ParamValue } from '@/core';
import type { DeskStore } from '@/ui/session/desk';

export type SetParam = (name: string, value: ParamValue | undefined, shown: string, key?: string) => void;

/** Sets a parameter of a stage, named for undo as its knob is. */
export const setParamOf =
  (desk: DeskStore, { id, label, kind }: Pick<GraphModule, 'id' | 'label' | 'kind'>): SetParam =>
  (name, value, shown, key) =>
    desk
      .getState()
      .edit(
        `${label} ${inSentence(paramLabel(name, kind.params[name]))} ${shown}`,
        [{ do: 'set', module: id, param: name, value }],
        key,
      );
