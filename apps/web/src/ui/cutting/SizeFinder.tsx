import { useState } from 'react';
import { Button, HelperText, TextInput } from 'react-native-paper';
import { LengthUnit, OperationKind, Tool, isSize, kindLabel, makesThreads, readSize, sizedTools } from '@tidypath/core';
import { ApiError } from '../../api/client';
import { useShelf } from '../../api/useShelf';
import { Row } from '../Card';
import { Txt } from '../Txt';

interface Props {
  kind: OperationKind;
  /** Of job and shop. */
  tools: Tool[];
  unit: LengthUnit;
  onTake: (tool: Tool) => void;
}

/** A size typed: the tools that have it, and, where none has, tools that can be made of it on the spot. */
export function SizeFinder({ kind, tools, unit, onTake }: Props) {
  const shelf = useShelf('tools');
  const { items: holders } = useShelf('holders');
  const [text, setText] = useState('');
  const [told, setTold] = useState('');
  const threads = makesThreads(kind, tools);
  const size = text.trim() ? readSize(text, unit, threads) : undefined;
  const there = size?.ok ? tools.filter((t) => kind.suits(t) && isSize(t, size)) : [];
  const made = size?.ok && there.length === 0 ? sizedTools(kind, size, tools, holders, unit) : [];
  const make = async (tool: Tool) => {
    try {
      onTake({ ...tool, id: await shelf.add(tool) });
    } catch (e) {
      setTold((e as ApiError).message);
    }
  };
  return (
    <>
      <TextInput
        mode="outlined"
        dense
        label={threads ? 'A thread, to find or to make its tool' : 'A size, to find or to make'}
        aria-label="Size of a tool"
        placeholder={threads ? 'M8, 1/4-20' : unit === 'mm' ? '7' : '17/64'}
        value={text}
        onChangeText={setText}
        testID="size-finder"
      />
      {size && !size.ok && <HelperText type="error">{size.why}</HelperText>}
      {there.length > 0 && (
        <Row>
          {there.map((t) => (
            <Button key={t.id} compact mode="outlined" onPress={() => onTake(t)}>
              Take T{t.number} {t.name}
            </Button>
          ))}
        </Row>
      )}
      {made.length > 0 && (
        <>
          <Txt kind="small" tone="quiet">
            No tool of that size does this. Made now, it is kept in the rack with lengths in proportion: measure it and
            correct them.
          </Txt>
          <Row>
            {made.map((t) => (
              <Button
                key={t.kind}
                compact
                mode="outlined"
                onPress={() => void make(t)}
                accessibilityLabel={`Make ${t.name}`}
              >
                New {kindLabel(t)}
              </Button>
            ))}
          </Row>
        </>
      )}
      {told !== '' && <Txt tone="danger">▲ {told}</Txt>}
    </>
  );
}
