import { useMemo } from 'react';
import { kindOf, parametersOf } from '@tidypath/core';
import { BendEditor } from './editors/BendEditor';
import { BeginsEditor } from './editors/BeginsEditor';
import { BoundsEditor } from './editors/BoundsEditor';
import { CoolantEditor } from './editors/CoolantEditor';
import { DepthEditor } from './editors/DepthEditor';
import { FeedsEditor } from './editors/FeedsEditor';
import { HeightsEditor } from './editors/HeightsEditor';
import { NameEditor } from './editors/NameEditor';
import { PauseEditor } from './editors/PauseEditor';
import { ParamEditor } from './editors/ParamEditor';
import { RepeatEditor } from './editors/RepeatEditor';
import { SpeedEditor } from './editors/SpeedEditor';
import { StretchEditor } from './editors/StretchEditor';
import { TargetsEditor } from './editors/TargetsEditor';
import { ToolEditor } from './editors/ToolEditor';
import type { EditorProps } from './editors/types';
import type { Field } from './sentences/types';

interface Props extends EditorProps {
  field: Field;
}

/** The right field for a value of a sentence, with its meaning and, where there is one, the suggestion. */
export function ValueEditor({ field, ...props }: Props) {
  const kind = kindOf(props.operation.kind);
  const info = useMemo(() => (kind ? parametersOf(kind.Params) : {}), [kind]);
  switch (field.at) {
    case 'tool':
      return <ToolEditor {...props} />;
    case 'targets':
      return <TargetsEditor {...props} />;
    case 'coolant':
      return <CoolantEditor {...props} />;
    case 'bend':
      return <BendEditor {...props} />;
    case 'speed':
      return <SpeedEditor {...props} which={field.key} />;
    case 'depth':
      return <DepthEditor {...props} featureId={field.featureId} />;
    case 'heights':
      return <HeightsEditor {...props} />;
    case 'name':
      return <NameEditor {...props} />;
    case 'bounds':
      return <BoundsEditor {...props} />;
    case 'feeds':
      return <FeedsEditor {...props} />;
    case 'begins':
      return <BeginsEditor {...props} />;
    case 'stretch':
      return <StretchEditor {...props} />;
    case 'before':
      return <PauseEditor {...props} />;
    case 'repeat':
      return <RepeatEditor {...props} />;
    case 'param': {
      const found = info[field.key];
      return found ? <ParamEditor {...props} name={field.key} info={found} /> : null;
    }
  }
}
