import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { Button, Searchbar } from 'react-native-paper';
import {
  LengthUnit,
  Form,
  Tool,
  ToolKind,
  formOf,
  kindLabel,
  newTool,
  pocketFinding,
  previewTools,
  toolsToCsv,
  toolsToJson,
} from '@tidypath/core';
import { ApiError } from '../../api/client';
import { useShelf } from '../../api/useShelf';
import { Page } from '../../shell/Page';
import { SPACE } from '../../theme/theme';
import { useWide } from '../../theme/usePalette';
import { Card, Row } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { Empty } from '../../ui/Empty';
import { FindingCard } from '../../ui/FindingCard';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { UnreadItems } from '../../ui/UnreadItems';
import { pickText, saveFile } from '../../ui/files';
import { AddToolSheet } from './AddToolSheet';
import { ImportSheet } from './ImportSheet';
import { ToolLine } from '../../ui/ToolLine';

type Group = 'all' | 'mills' | 'edges' | 'drills' | 'threads';
type Order = 'pocket' | 'diameter' | 'name';

const GROUPS: { value: Group; label: string; forms: Form[] }[] = [
  { value: 'all', label: 'All', forms: [] },
  { value: 'mills', label: 'Mills', forms: ['mill', 'taper'] },
  { value: 'edges', label: 'Edges', forms: ['cone', 'rounding'] },
  { value: 'drills', label: 'Holes', forms: ['drill', 'bore'] },
  { value: 'threads', label: 'Threads', forms: ['tap', 'thread'] },
];

const ORDERS: Record<Order, (a: Tool, b: Tool) => number> = {
  pocket: (a, b) => a.number - b.number,
  diameter: (a, b) => a.diameter - b.diameter || a.number - b.number,
  name: (a, b) => a.name.localeCompare(b.name),
};

/** Every word that was typed starts a word of the tool. */
function matches(tool: Tool, wanted: string): boolean {
  const words = `t${tool.number} ${tool.name} ${kindLabel(tool)} ${tool.material} ${tool.holder.name}`
    .toLowerCase()
    .split(/[\s,]+/);
  return wanted
    .toLowerCase()
    .split(/\s+/)
    .every((w) => words.some((word) => word.startsWith(w)));
}

/** The tool rack: find, sort, add, take lists in and hand them out. */
export function ToolsPage() {
  const router = useRouter();
  const wide = useWide();
  const { kept, items, error, add: keep, refresh } = useShelf('tools');
  const { items: holders } = useShelf('holders');
  const [wanted, setWanted] = useState('');
  const [group, setGroup] = useState<Group>('all');
  const [order, setOrder] = useState<Order>('pocket');
  const [adding, setAdding] = useState(false);
  const [handing, setHanding] = useState(false);
  const [list, setList] = useState<{ name: string; text: string }>();
  const [told, setTold] = useState<string>();

  const forms = GROUPS.find((g) => g.value === group)!.forms;
  const found = items
    .filter((t) => (forms.length === 0 || forms.includes(formOf(t))) && matches(t, wanted.trim()))
    .sort(ORDERS[order]);
  const clashes = useMemo(() => items.flatMap((t, i) => pocketFinding(t, items.slice(0, i)) ?? []), [items]);
  const preview = useMemo(() => list && previewTools(list.text, items, holders), [list, items, holders]);

  const add = async (kind: ToolKind, diameter: number, unit: LengthUnit) => {
    const tool = newTool(kind, diameter, items, holders, unit);
    try {
      router.push(`/tools/${await keep(tool)}`);
    } catch (e) {
      setTold((e as ApiError).message);
    }
  };

  return (
    <>
      <Page
        title="Tools"
        actions={
          <>
            <Button mode="outlined" onPress={() => setHanding(true)}>
              Lists
            </Button>
            <Button mode="contained" onPress={() => setAdding(true)} disabled={!kept}>
              New tool
            </Button>
          </>
        }
      >
        {(told ?? error?.message) && <Txt tone="danger">▲ {told ?? error?.message}</Txt>}
        <UnreadItems shelf="tools" />
        {clashes.map((f) => (
          <FindingCard key={f.place.tool} finding={f} onGo={() => router.push(`/tools/${f.place.tool}`)} />
        ))}
        <Searchbar
          icon="magnify"
          clearIcon="close"
          placeholder="Number, name, kind or holder"
          accessibilityLabel="Search tools"
          value={wanted}
          onChangeText={setWanted}
        />
        <Row style={{ gap: SPACE.l }}>
          <Choices label="Show" value={group} onChange={setGroup} options={GROUPS} />
          <Choices
            label="By"
            value={order}
            onChange={setOrder}
            options={[
              { value: 'pocket', label: 'pocket' },
              { value: 'diameter', label: 'diameter' },
              { value: 'name', label: 'name' },
            ]}
          />
        </Row>
        {kept && found.length === 0 && (
          <Empty title={items.length ? 'No such tool' : 'The rack is empty'}>
            <Txt tone="quiet">
              {items.length ? 'Try a number, a size or a kind: “drill”, “10 mm”.' : 'Add a tool, or take in a list.'}
            </Txt>
            <Button mode="outlined" onPress={() => setAdding(true)}>
              New tool
            </Button>
          </Empty>
        )}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.s }}>
          {found.map((tool) => (
            <View key={tool.id} style={{ width: wide ? '49%' : '100%' }}>
              <ToolLine tool={tool} unit={tool.unit ?? 'mm'} onPress={() => router.push(`/tools/${tool.id}`)} />
            </View>
          ))}
        </View>
      </Page>
      <AddToolSheet open={adding} onClose={() => setAdding(false)} onAdd={(...asked) => void add(...asked)} />
      <Sheet title="Tool lists" open={handing} onClose={() => setHanding(false)}>
        <Txt tone="quiet">
          A CSV opens in any spreadsheet; JSON keeps holders and own data whole. Lengths are in mm.
        </Txt>
        <Card>
          <Txt bold>Hand out the rack</Txt>
          <Row>
            <Button mode="outlined" onPress={() => saveFile('tools.csv', toolsToCsv(items), 'text/csv')}>
              CSV
            </Button>
            <Button mode="outlined" onPress={() => saveFile('tools.json', toolsToJson(items), 'application/json')}>
              JSON
            </Button>
          </Row>
        </Card>
        <Card>
          <Txt bold>Take a list in</Txt>
          <Txt kind="small" tone="quiet">
            You see what will change before anything does. A CSV needs the columns kind, name and diameter.
          </Txt>
          <Button
            mode="outlined"
            onPress={() => void pickText('.csv,.json').then((f) => f && (setList(f), setHanding(false)))}
          >
            Choose a file
          </Button>
        </Card>
      </Sheet>
      {list && preview && (
        <ImportSheet
          name={list.name}
          preview={preview}
          versions={new Map(kept?.map((k) => [k.item.id, k.version]))}
          onClose={() => setList(undefined)}
          onDone={() => {
            setList(undefined);
            void refresh();
          }}
        />
      )}
    </>
  );
}
