import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { changeTool, isStale, kindOf, rankedFor, refreshTool } from '@tidypath/core';
import { SPACE } from '../../../theme/theme';
import { SizeFinder } from '../../../ui/cutting/SizeFinder';
import { Txt } from '../../../ui/Txt';
import { useAdvice } from '../../../ui/cutting/useAdvice';
import { useShop } from '../../../ui/cutting/useShop';
import { ToolLine } from '../../../ui/ToolLine';
import type { EditorProps } from './types';

/** The rack for this operation: advised tools first with their reasons, then the rest that can, then what to buy. */
export function ToolEditor({ job, operation, edit }: EditorProps) {
  const kind = kindOf(operation.kind);
  const { tools: rack } = useShop();
  const all = [...job.tools, ...rack.filter((t) => !job.tools.some((own) => own.id === t.id))];
  const suiting = all.filter((t) => kind?.suits(t)).sort((a, b) => a.number - b.number);
  const advised = useAdvice(job, operation.targets[0], suiting);
  const ranked = advised ? rankedFor(operation.kind, advised) : [];
  const rest = suiting.filter((t) => !ranked.some((r) => r.tool.id === t.id));
  const own = job.tools.find((t) => t.id === operation.toolId);
  const racked = own && rack.find((t) => t.id === own.id);
  const choose = (toolId: string) => {
    const tool = all.find((t) => t.id === toolId);
    if (tool) edit((j) => changeTool(j, operation.id, tool));
  };
  return (
    <>
      <Txt kind="small" tone="quiet">
        Bite and speeds follow the tool you choose.
      </Txt>
      {own && racked && isStale(own, racked) && (
        <View style={{ gap: SPACE.xs }}>
          <Txt kind="small">◆ The rack’s T{racked.number} has changed since this job took it.</Txt>
          <Button compact mode="outlined" onPress={() => edit((j) => refreshTool(j, racked))}>
            Take it as it is in the rack now
          </Button>
        </View>
      )}
      {advised?.buy && (
        <Txt kind="small" testID="buy">
          ◆ Nothing in the rack does all of it. To buy: {advised.buy}.
        </Txt>
      )}
      {kind && (
        <SizeFinder
          kind={kind}
          tools={all}
          unit={job.unit}
          onTake={(tool) => edit((j) => changeTool(j, operation.id, tool))}
        />
      )}
      {ranked.map((r) => (
        <ToolLine
          key={r.tool.id}
          tool={r.tool}
          unit={job.unit}
          chosen={r.tool.id === operation.toolId}
          reasons={[`${r.role}: ${r.reasons[0]}`, ...r.reasons.slice(1)]}
          cautions={r.cautions}
          onPress={() => choose(r.tool.id)}
        />
      ))}
      {ranked.length > 0 && rest.length > 0 && (
        <Txt bold kind="small">
          Others
        </Txt>
      )}
      {rest.map((t) => (
        <ToolLine
          key={t.id}
          tool={t}
          unit={job.unit}
          chosen={t.id === operation.toolId}
          cautions={advised?.unfit.filter((u) => u.tool.id === t.id).map((u) => u.why)}
          onPress={() => choose(t.id)}
        />
      ))}
    </>
  );
}
