import { useState } from 'react';
import { Face, Job, Part, WriteAsk, stlOf, surfaceIn } from '@tidypath/core';
import { engine } from '../../compute/engine';
import { sculpted } from '../../compute/model';
import { Actions } from '../../ui/Actions';
import { Choices } from '../../ui/Choices';
import { LengthField } from '../../ui/LengthField';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { saveFile } from '../../ui/files';

const FORMS = {
  dxf: { label: 'DXF', type: 'image/vnd.dxf' },
  svg: { label: 'SVG', type: 'image/svg+xml' },
  stl: { label: 'STL', type: 'model/stl' },
} as const;

const WORDS = {
  solid: 'the solid, as STL',
  features: 'its features, drawn flat',
  outside: 'its outside alone',
  section: 'what a plane cuts of it',
  stock: 'the stock of this setup',
} as const;
type What = keyof typeof WORDS;

const AXES = (['x', 'y', 'z'] as const).map((value) => ({ value, label: value.toUpperCase() }));

interface Props {
  job: Job;
  setupId: string;
  /** The side its features are looked at from. */
  face: Face;
  /** Sizes of the box round the part, mm. */
  size: [number, number, number];
  open: boolean;
  onClose: () => void;
}

/** A plate as the solid it becomes. */
async function sculptedStl(part: Part): Promise<Uint8Array | undefined> {
  const mesh = surfaceIn((await sculpted(part)).surface);
  return mesh && stlOf(mesh);
}

/** The part and its stock as files for other programs: drawings as DXF or SVG, the solid as STL. */
export function SaveSheet({ job, setupId, face, size, open, onClose }: Props) {
  const isSolid = job.part.kind === 'solid';
  const [what, setWhat] = useState<What>(isSolid ? 'solid' : 'features');
  const [form, setForm] = useState<'dxf' | 'svg'>('dxf');
  const [axis, setAxis] = useState<'x' | 'y' | 'z'>('z');
  const [places, setPlaces] = useState<Partial<Record<'x' | 'y' | 'z', number>>>({});
  const [failed, setFailed] = useState('');
  const [x, y, z] = size;
  const span = { x: [0, x], y: [0, y], z: [-z, 0] }[axis];
  const at = places[axis] ?? (span[0] + span[1]) / 2;
  const ask = (): WriteAsk => {
    if (what === 'solid') return { what, form: 'stl' };
    if (what === 'features') return { what, face, form };
    if (what === 'section') return { what, across: { axis, at }, form };
    return what === 'stock' ? { what, setupId, form } : { what, form };
  };
  const save = async () => {
    const asked = ask();
    const made = what === 'solid' && !isSolid ? sculptedStl(job.part) : engine.write(job, asked);
    const file = await made.catch((error: Error) => error.message);
    if (!file || typeof file === 'string') {
      setFailed(file || 'There is nothing there to draw');
      return;
    }
    const name = what === 'solid' ? job.name : `${job.name} ${what}`;
    saveFile(`${name}.${asked.form}`, file, FORMS[asked.form].type);
    onClose();
  };
  const change =
    <T,>(set: (v: T) => void) =>
    (v: T) => {
      setFailed('');
      set(v);
    };
  return (
    <Sheet
      title="Save as a file"
      open={open}
      onClose={onClose}
      actions={
        <Actions leave="Leave it" onLeave={onClose} take="Save it" onTake={() => void save()} testID="save-part" />
      }
    >
      <Choices
        label="What is saved"
        value={what}
        options={(Object.keys(WORDS) as What[]).map((value) => ({ value, label: WORDS[value] }))}
        onChange={change(setWhat)}
      />
      {what !== 'solid' && (
        <Choices
          label="As"
          value={form}
          options={(['dxf', 'svg'] as const).map((value) => ({ value, label: FORMS[value].label }))}
          onChange={change(setForm)}
        />
      )}
      {what === 'section' && (
        <>
          {isSolid && <Choices label="Across" value={axis} options={AXES} onChange={change(setAxis)} />}
          <LengthField
            label={axis === 'z' ? 'Height, the top at 0' : `Place along ${axis.toUpperCase()}`}
            value={at}
            unit={job.unit}
            min={span[0]}
            max={span[1]}
            onChange={change((v: number) => setPlaces({ ...places, [axis]: v }))}
          />
        </>
      )}
      {what === 'features' && (
        <Txt kind="small" tone="quiet">
          As seen from the {face}; each on a layer by its name.
        </Txt>
      )}
      {!!failed && <Txt tone="danger">▲ It could not be saved: {failed}.</Txt>}
    </Sheet>
  );
}
