import { useState } from 'react';
import { Button } from 'react-native-paper';
import { Preview, Tool, parametersOf } from '@tidypath/core';
import type { ApiError } from '../../api/client';
import { bringAll } from '../../api/writes';
import { FindingCard } from '../../ui/FindingCard';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';

interface Props {
  name: string;
  preview: Preview;
  versions: Map<string, number>;
  onClose: () => void;
  onDone: () => void;
}

const SHOWN = 12;
const LABELS = Object.fromEntries(
  Object.entries(parametersOf(Tool)).map(([key, info]) => [key, info.label.toLowerCase()]),
);
const plural = (n: number, one: string) => `${n} ${one}${n === 1 ? '' : 's'}`;

/** What a list would change, before it does. */
export function ImportSheet({ name, preview, versions, onClose, onDone }: Props) {
  const [told, setTold] = useState<string>();
  const { added, changed, same, findings } = preview;
  const take = async () => {
    const items = [...added, ...changed.map((c) => c.after)];
    try {
      const { saved, late } = await bringAll(
        'tools',
        items.map((item) => ({ version: versions.get(item.id) ?? 0, item })),
      );
      if (saved) onDone();
      else setTold(`Somebody changed ${late.join(', ')} meanwhile; nothing was taken in. Close this and try again`);
    } catch (e) {
      setTold((e as ApiError).message);
    }
  };
  return (
    <Sheet title={name} open onClose={onClose}>
      <Txt bold testID="import-summary">
        {plural(added.length, 'new tool')}, {changed.length} changed, {same} as they are
      </Txt>
      {told && <Txt tone="danger">▲ {told}</Txt>}
      {findings.slice(0, SHOWN).map((f, i) => (
        <FindingCard key={i} finding={f} />
      ))}
      {findings.length > SHOWN && <Txt>and {findings.length - SHOWN} findings more</Txt>}
      {changed.slice(0, SHOWN).map((c) => (
        <Txt key={c.after.id} kind="small">
          T{c.before.number} {c.before.name}: {c.fields.map((f) => LABELS[f] ?? f).join(', ')}
        </Txt>
      ))}
      {added.slice(0, SHOWN).map((t) => (
        <Txt key={t.id} kind="small">
          + T{t.number} {t.name}
        </Txt>
      ))}
      {added.length + changed.length > 2 * SHOWN && <Txt kind="small">and more</Txt>}
      <Button mode="contained" disabled={added.length + changed.length === 0} onPress={() => void take()}>
        Take in {plural(added.length + changed.length, 'tool')}
      </Button>
    </Sheet>
  );
}
