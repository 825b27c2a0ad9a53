import { useRouter } from 'expo-router';
import { useCallback, useMemo } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import {
  LengthUnit,
  Tool,
  TRADES,
  cutsFloors,
  cutsWalls,
  flankAngle,
  formatLength,
  formOf,
  freePocket,
  freshToolId,
  makesHoles,
  parametersOf,
  plunges,
  pocketFinding,
  startsHoles,
} from '@tidypath/core';
import { useShelf } from '../../api/useShelf';
import { SPACE } from '../../theme/theme';
import { useWide } from '../../theme/usePalette';
import { Card } from '../../ui/Card';
import { Choices, UNITS, plainOptions } from '../../ui/Choices';
import { FindingCard } from '../../ui/FindingCard';
import { LessonsCard } from '../../ui/log/LessonsCard';
import { Txt } from '../../ui/Txt';
import { ValueForm } from '../../ui/ValueForm';
import { ItemPage } from '../../shell/ItemPage';
import { useDraft } from '../../shell/useDraft';
import { LastsCard } from './LastsCard';
import { OwnDataCard } from './OwnDataCard';
import { ToolDrawing } from '../../ui/ToolDrawing';

const FIELDS = parametersOf(Tool);

const unitOf = (tool: Tool): LengthUnit => tool.unit ?? 'mm';

/** What a tool can do, from its numbers. */
function abilities(tool: Tool): string[] {
  const flank = flankAngle(tool);
  const form = formOf(tool);
  return [
    cutsWalls(tool) && `mills walls up to ${formatLength(tool.fluteLength, unitOf(tool))} deep`,
    cutsFloors(tool) && 'leaves level floors',
    makesHoles(tool) &&
      (startsHoles(tool)
        ? 'gives drills a true start'
        : form === 'drill'
          ? 'makes holes of its size'
          : 'may go straight down'),
    !plunges(tool) && 'enters by helix or ramp only',
    flank !== undefined && `breaks edges at ${flank}° to its axis`,
    form === 'bore' && 'sizes holes that are there',
    form === 'tap' && 'makes threads along its axis',
    form === 'thread' && 'mills threads around its axis',
    form === 'rounding' && `rounds edges to ${formatLength(tool.cornerRadius, unitOf(tool))}`,
  ].filter((a): a is string => !!a);
}

/** One tool: drawn to scale, every number of it, its holder, the shop's own data, who uses it. */
export function ToolPage({ id }: { id: string }) {
  const router = useRouter();
  const wide = useWide();
  const { items: rack, add } = useShelf('tools');
  const { items: holders } = useShelf('holders');
  const clash = useCallback((tool: Tool) => [pocketFinding(tool, rack)].filter((f) => f !== undefined), [rack]);
  const draft = useDraft('tools', id, clash);
  const { item: tool, findings, change } = draft;
  const known = useMemo(() => new Set(Object.keys(FIELDS)), []);
  const loose = findings.filter((f) => !known.has(f.place.field ?? ''));
  const duplicate = async () => {
    const copy = { ...tool!, id: freshToolId(rack), number: freePocket(rack), name: `${tool!.name} copy`.slice(0, 80) };
    router.push(`/tools/${await add(copy)}`);
  };
  return (
    <ItemPage
      shelf="tools"
      id={id}
      title={tool && `T${tool.number} · ${tool.name}`}
      back="/tools"
      draft={draft}
      actions={
        <Button mode="outlined" onPress={() => void duplicate()} disabled={draft.state === 'held back'}>
          Duplicate
        </Button>
      }
    >
      {tool && (
        <View
          style={{ flexDirection: wide ? 'row' : 'column', gap: SPACE.l, alignItems: wide ? 'flex-start' : 'stretch' }}
        >
          <Card style={{ alignItems: 'center', minWidth: wide ? 320 : undefined }}>
            <View role="img" aria-label={`${tool.name}, drawn to scale`}>
              <ToolDrawing tool={tool} width={130} height={320} unit={unitOf(tool)} />
            </View>
            <View style={{ alignSelf: 'stretch' }}>
              {abilities(tool).map((a) => (
                <Txt key={a} kind="small">
                  ✓ {a}
                </Txt>
              ))}
            </View>
          </Card>
          <View style={{ flex: wide ? 1 : undefined, gap: SPACE.m, minWidth: 0 }}>
            {loose.map((f, i) => (
              <FindingCard key={i} finding={f} />
            ))}
            <Choices
              label="Its lengths are written in"
              value={unitOf(tool)}
              options={plainOptions(UNITS)}
              onChange={(unit) => change({ unit })}
            />
            <ValueForm item={tool} fields={FIELDS} unit={unitOf(tool)} findings={findings} onChange={change} />
            <Card>
              <Txt heading kind="large">
                Holder
              </Txt>
              <Choices
                label="Stands in"
                value={tool.holder.id}
                options={(holders.some((h) => h.id === tool.holder.id) ? holders : [tool.holder, ...holders]).map(
                  (h) => ({ value: h.id, label: h.name }),
                )}
                onChange={(holderId) => {
                  const holder = holders.find((h) => h.id === holderId);
                  if (holder) change({ holder });
                }}
              />
              <Txt kind="small" tone="quiet">
                Balanced to {tool.holder.balancedRpm} rpm, grips {tool.holder.gripTorque} N·m on a 10 mm shank.
              </Txt>
            </Card>
            <OwnDataCard tool={tool} onChange={(ownData) => change({ ownData })} />
            <LastsCard tool={tool} onChange={(lasts) => change({ lasts })} />
            <LessonsCard item={tool.id} title="What the log says" />
            <Txt kind="small" tone="quiet">
              A {TRADES[tool.kind].label} is what the trade calls it; what it may do here follows from its numbers.
            </Txt>
          </View>
        </View>
      )}
    </ItemPage>
  );
}
