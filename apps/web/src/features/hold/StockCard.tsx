import { useState } from 'react';
import { Button } from 'react-native-paper';
import {
  Finding,
  LIES,
  STOCK_AXES,
  Setup,
  atHand,
  fileMissing,
  formatLength,
  groundOf,
  readStl,
  stockSize,
  withStockSize,
  partModel,
} from '@tidypath/core';
import { Card, Fields } from '../../ui/Card';
import { Choices, plainOptions } from '../../ui/Choices';
import { FindingCard } from '../../ui/FindingCard';
import { keepFile } from '../../api/files';
import { pickFile } from '../../ui/files';
import { LengthField } from '../../ui/LengthField';
import { Txt } from '../../ui/Txt';
import { BarCard } from './BarCard';
import { useJob } from '../../session/JobContext';

type Stock = Setup['stock'];
/** Its lengths. */
type Length = 'left' | 'right' | 'front' | 'back' | 'top' | 'bottom' | 'diameter' | 'bore' | 'corner';

/** A block of the part's own size. */
const NOTHING_MORE = { left: 0, right: 0, front: 0, back: 0, top: 0, bottom: 0 } as Stock;

interface Props {
  setup: Setup;
  set: (more: Partial<Setup>, tag?: string) => void;
}

/** What the work is cut from. */
export function StockCard({ setup, set }: Props) {
  const { job } = useJob();
  const { unit } = job;
  // What it measures is told of the block as it lies before it is made to lean.
  const { stock, model } = groundOf(job, { ...setup, lean: undefined }, partModel);
  const { shape, lies } = setup.stock;
  const isBar = shape === 'round' || shape === 'tube';
  const isShaped = shape !== 'as left' && shape !== 'casting';
  const isLying = lies === 'along X' || lies === 'along Y';
  const setStock = (more: Partial<Stock>, tag = 'stock') => set({ stock: { ...setup.stock, ...more } }, tag);
  const length = (label: string, key: Length, most = 1000) => (
    <LengthField
      key={key}
      label={label}
      value={setup.stock[key] ?? 0}
      unit={unit}
      min={key === 'diameter' ? 0.1 : 0}
      max={most}
      onChange={(mm) => setStock({ [key]: mm }, `stock-${key}`)}
    />
  );
  return (
    <Card>
      <Txt heading kind="large">
        Stock
      </Txt>
      <Choices
        label="Shape"
        value={shape}
        onChange={(next) => setStock({ shape: next })}
        options={[
          ...plainOptions(['box', 'round', 'tube', 'casting'] as const),
          ...(job.setups[0].id === setup.id
            ? []
            : [{ value: 'as left' as const, label: 'as the setup before leaves it' }]),
        ]}
      />
      {shape === 'casting' && <CastingFields stock={setup.stock} onStock={setStock} />}
      {shape === 'box' && model.outline.length > 0 && (
        <Fields>
          {STOCK_AXES.map((axis) => (
            <LengthField
              key={axis}
              label={`${axis} over all`}
              value={stockSize(setup.stock, axis, model.bounds, model.thickness)}
              unit={unit}
              min={stockSize(NOTHING_MORE, axis, model.bounds, model.thickness)}
              max={5000}
              testID={`stock-${axis}`}
              onChange={(mm) =>
                set({ stock: withStockSize(setup.stock, axis, mm, model.bounds, model.thickness) }, `stock-${axis}`)
              }
            />
          ))}
        </Fields>
      )}
      {isShaped && (
        <Txt kind="small" tone="quiet">
          More than the part, on each side
        </Txt>
      )}
      {shape === 'box' && (
        <>
          <Fields>{[length('Left', 'left'), length('Right', 'right')]}</Fields>
          <Fields>{[length('Front', 'front'), length('Back', 'back')]}</Fields>
        </>
      )}
      {isBar && isLying && (
        <Fields>
          {lies === 'along X'
            ? [length('Left', 'left'), length('Right', 'right')]
            : [length('Front', 'front'), length('Back', 'back')]}
        </Fields>
      )}
      <Fields>
        {isBar && length('Diameter', 'diameter', 5000)}
        {shape === 'tube' && length('Bore', 'bore', 5000)}
        {shape === 'box' && length('Radius of its edges', 'corner')}
      </Fields>
      {isShaped && (
        <Choices
          label="The bar stands"
          value={lies ?? 'upright'}
          onChange={(next) => setStock({ lies: next })}
          options={plainOptions([...LIES])}
        />
      )}
      {shape === 'as left' ? (
        <Txt kind="small">
          {formatLength(stock.top, unit)} above the part, {formatLength(-stock.bottom - model.thickness, unit)} below
          it. The proof of the setup before says what is exactly left.
        </Txt>
      ) : (
        !(isBar && isLying) && <Fields>{[length('Above', 'top'), isShaped && length('Below', 'bottom')]}</Fields>
      )}
      {isShaped && <BarCard setup={setup} set={set} />}
    </Card>
  );
}

/** The mesh of a casting, from a file. */
function CastingFields({ stock, onStock }: { stock: Stock; onStock: (more: Partial<Stock>) => void }) {
  const [findings, setFindings] = useState<Finding[]>([]);
  const lost = stock.casting && !atHand(stock.casting.sha256) ? [fileMissing(stock.casting)] : [];
  const open = async () => {
    const file = await pickFile('.stl');
    if (!file) return;
    const bytes = new Uint8Array(await file.arrayBuffer());
    const read = readStl(bytes);
    setFindings(read.findings);
    if (read.mesh) onStock({ casting: await keepFile(file.name, bytes) });
  };
  return (
    <>
      <Txt>
        {stock.casting
          ? `“${stock.casting.name}”, its middle over the part’s`
          : 'A solid as STL, in mm. Until one is opened, a box stands in for it in the picture and nothing is posted.'}
      </Txt>
      <Button mode="outlined" onPress={() => void open()} testID="open-casting" style={{ alignSelf: 'flex-start' }}>
        Open an STL file
      </Button>
      {[...findings, ...lost].map((f) => (
        <FindingCard key={f.code} finding={f} />
      ))}
    </>
  );
}
