import { Button } from 'react-native-paper';
import { Feeds, editOperation, formatFeed, plungeFeedOf } from '@tidypath/core';
import { FeedField } from '../../../ui/cutting/SpeedField';
import { Txt } from '../../../ui/Txt';
import type { EditorProps } from './types';

type Which = keyof Feeds;

/** Feeds that are asked for apart from the rest: each as it comes, or its own. */
export function FeedsEditor({ job, operation, edit }: EditorProps) {
  const tool = job.tools.find((t) => t.id === operation.toolId);
  const { feeds = {}, speeds } = operation;
  const { machine, material, unit } = job;
  const set = (which: Which, value: number | undefined) => {
    const next = { ...feeds, [which]: value };
    const isAny = Object.values(next).some((v) => v !== undefined);
    edit(
      (j) => editOperation(j, operation.id, (o) => ({ ...o, feeds: isAny ? next : undefined })),
      `${operation.id}-${which}`,
    );
  };
  const comes: [Which, string, number][] = [
    ['lead', 'Leading in and out', speeds.feed],
    ['plunge', 'Straight down', tool ? plungeFeedOf({ operation, tool, material, machine }) : speeds.entryFeed],
    ['last', 'Deepest layer', speeds.feed],
  ];
  const fields = comes.flatMap(([which, label, own]) => [
    <FeedField
      key={which}
      label={label}
      value={feeds[which] ?? own}
      min={0.1}
      max={machine.maxFeed}
      unit={unit}
      turning={{ diameter: tool?.diameter ?? 1, flutes: tool?.flutes ?? 1, rpm: speeds.rpm }}
      onChange={(v) => set(which, v)}
      testID={`feed-${which}`}
    />,
    ...(feeds[which] === undefined
      ? []
      : [
          <Button key={`${which}-own`} compact mode="outlined" onPress={() => set(which, undefined)}>
            As it comes, {formatFeed(own, unit)}
          </Button>,
        ]),
  ]);
  return (
    <>
      {fields}
      <Txt kind="small" tone="quiet">
        Each follows the feed, and straight down what the spindle bears, until it is typed here.
      </Txt>
    </>
  );
}
