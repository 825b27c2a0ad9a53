import { useCallback, useMemo, useState } from 'react';
import { Button } from 'react-native-paper';
import {
  FACES,
  FACE_UPS,
  Face,
  Feature,
  GENERAL_TOLERANCE,
  Job,
  Meaning,
  Part,
  UNNAMED,
  bodyAs,
  facesAgain,
  facesOf,
  freshId,
  isBeside,
  landed,
  middleOn,
  newFeature,
  onZero,
  oppositeOf,
  partFindings,
  revised,
  seenFrom,
  splitFeature,
  withInstead,
  sideOf,
  placements,
} from '@tidypath/core';
import { Fields, Row } from '../../ui/Card';
import { Choices, plainOptions } from '../../ui/Choices';
import { Empty } from '../../ui/Empty';
import { FindingCard } from '../../ui/FindingCard';
import { LengthField } from '../../ui/LengthField';
import { Txt } from '../../ui/Txt';
import { pickBytes } from '../../ui/files';
import { keepFile } from '../../api/files';
import { SolidView } from '../../scene/SolidView';
import { useJob } from '../../session/JobContext';
import { StagePage } from '../../session/StagePage';
import { CorrectFields } from './CorrectFields';
import { FeatureAdvice } from './FeatureAdvice';
import { AddSheet } from './AddSheet';
import { FeatureList } from './FeatureList';
import { FeatureSheet } from './FeatureSheet';
import { ImportSheet } from './ImportSheet';
import { LeftCard } from './LeftCard';
import { ModelSheet, TakenIn } from './ModelSheet';
import { PlanCard, usePlan } from './PlanCard';
import { PlateView } from './PlateView';
import { TightCard } from './TightCard';
import { ToldCard } from './ToldCard';
import { SaveSheet } from './SaveSheet';
import { Revision, RevisionCard } from './RevisionCard';
import { SHAPE_WORDS, firstShape } from './words';

/** What new features are called. */
const NAMES: Partial<Record<Meaning, string>> = { notch: 'Notch', boss: 'Boss', hole: 'Hole' };

/** Faces a part is looked at from; what is cut from below is seen through from above. */
const LOOKED_AT = FACES.filter((face) => face !== 'underside');
const lookedAtFrom = (feature: Feature): Face => (isBeside(feature) ? sideOf(feature) : 'top');

/** The part as it is drawn on one face. */
const drawnOn = (part: Part, face: Face): Part =>
  face === 'top' ? { ...part, features: part.features.filter((f) => !isBeside(f)) } : seenFrom(part, FACE_UPS[face]);

/** Files a drawing may come in, and a solid. */
const DRAWINGS = '.dxf,.svg';
const MODELS = '.step,.stp,.stl,.obj,.3mf';
const NO_FACES: number[] = [];

/** How a plate is looked at. */
const SHOWN_AS = ['drawing', 'solid'] as const;
type ShownAs = (typeof SHOWN_AS)[number];

/** A job nobody has named takes the name of the first file it is given. */
function namedBy({ name }: Job, file = ''): string {
  const called = file
    .replace(/\.[^.]*$/, '')
    .trim()
    .slice(0, 120);
  return name === UNNAMED && called ? called : name;
}

/** What a drawing adds to a solid: an outside it has of its own. */
const drawnInto = ({ features }: Part, drawn: Feature[]): Feature[] =>
  drawn
    .filter((f) => f.meaning !== 'outline')
    .reduce<Feature[]>((all, f) => {
      const taken = all.map((g) => g.id);
      return [...all, { ...f, id: freshId('f', taken) }];
    }, features);

/** What is wanted: a solid, a drawing given its meaning, or shapes with numbers. */
export function PartStage() {
  const { job, setup, edit } = useJob();
  const { part, unit } = job;
  const [selected, setSelected] = useState<string>();
  const [open, setOpen] = useState(false);
  const [adding, setAdding] = useState(false);
  const [file, setFile] = useState<{ name: string; text: string }>();
  const [model, setModel] = useState<{ name: string; bytes: Uint8Array }>();
  const [tapped, setTapped] = useState<number>();
  const [isSaving, setSaving] = useState(false);
  const [isPlanned, setPlanned] = useState(false);
  const [revision, setRevision] = useState<Revision>();
  const begun = useCallback(() => setPlanned(false), []);
  const planning = usePlan(isPlanned && part.kind === 'solid', begun);
  const findings = useMemo(() => (part.features.length ? partFindings(part) : []), [part]);
  const [shownAs, setShownAs] = useState<ShownAs>('drawing');
  const [looked, setLooked] = useState<Face>('top');
  const current = part.features.find((f) => f.id === selected);
  const face = current ? lookedAtFrom(current) : looked;
  const look = (next: Face) => (setSelected(undefined), setLooked(next));
  const faceOfFinding = (id?: string) => {
    const feature = part.features.find((f) => f.id === id);
    return feature ? lookedAtFrom(feature) : 'top';
  };
  const plan = useMemo(() => drawnOn(part, face), [part, face]);

  const setFeatures = (change: (f: Feature[]) => Feature[], tag?: string) =>
    edit((j) => ({ ...j, part: { ...j.part, features: change(j.part.features) } }), tag);
  const size = unit === 'mm' ? 40 : 38.1;
  const addShape = (type: keyof typeof SHAPE_WORDS, meaning: Feature['meaning']) => {
    if (type === 'chain') return;
    const plate = meaning === 'outline';
    const first = newFeature(
      part.features,
      meaning,
      plate ? 'Plate' : `${NAMES[meaning] ?? 'Pocket'} ${part.features.length + 1}`,
      firstShape(type, plate ? size * 2.5 : meaning === 'hole' ? size / 4 : size),
      {
        ...(face === 'top' ? { x: size * 1.25, y: size * 0.75 } : { ...middleOn(part, face), side: face }),
        depth: meaning === 'boss' ? 0 : Math.min(5, part.thickness / 2),
      },
    );
    setFeatures((f) => [...f, plate && f.length === 0 ? onZero([first])[0] : first]);
    setSelected(first.id);
    setAdding(false);
    setOpen(true);
  };
  /** A file in the place of the part: as a newer revision of it, where it is one. */
  const takeRevised = (next: Part, file?: string) => {
    const again = part.kind === 'solid' && next.kind === 'solid' ? facesAgain(part, next) : undefined;
    const { part: taken, changes } = revised(part, next, again);
    edit((j) => ({ ...j, name: namedBy(j, file), part: taken }));
    setRevision(changes && { job, list: changes });
  };
  const take = (features: Feature[]) => {
    if (part.kind === 'plate') takeRevised({ ...part, features }, file?.name);
    else edit((j) => ({ ...j, part: { ...j.part, features: drawnInto(j.part, features) } }));
    setFile(undefined);
  };
  const takeSolid = async ({ part: solid, surface, source, isPlanned }: TakenIn) => {
    await keepFile(solid.surface.name, surface);
    await keepFile(source.name, source.bytes);
    takeRevised(solid, source.name);
    // It is this one that is planned, not what was there before.
    setPlanned(isPlanned);
    setModel(undefined);
    setSelected(undefined);
    setTapped(undefined);
  };
  const pick = async () => {
    const picked = await pickBytes(`${DRAWINGS},${MODELS}`);
    if (!picked) return;
    if (/\.(dxf|svg)$/i.test(picked.name)) setFile({ name: picked.name, text: new TextDecoder().decode(picked.bytes) });
    else setModel(picked);
  };
  /** What was told of a face takes the place of what it was found to be, unless that is more than this. */
  const told = (feature: Feature) => {
    const of = part.features.find((f) => f.faces?.some((id) => id === tapped));
    const isMore = !of || of.meaning === 'outline' || placements(of.pattern).length > 1;
    if (isMore) setFeatures((all) => [...all, feature]);
    else edit((j) => withInstead(j, [of.id], [feature]));
    setSelected(feature.id);
    setOpen(true);
  };
  const lit = useMemo(() => current?.faces ?? (tapped === undefined ? NO_FACES : [tapped]), [current, tapped]);
  const pickFace = useCallback(
    (id: number) => {
      setTapped(id);
      setSelected(part.features.find((f) => f.faces?.includes(id))?.id);
    },
    [part.features],
  );
  const body = part.kind === 'solid' ? bodyAs(part, 'top').size : undefined;

  return (
    <>
      <StagePage
        view={
          part.kind === 'solid' && body ? (
            <SolidView
              surface={part.surface}
              size={{ x: body[0], y: body[1], z: body[2] }}
              unit={unit}
              chosen={lit}
              onPick={pickFace}
              label={`${job.name}: the solid`}
            />
          ) : part.features.length ? (
            <PlateView
              part={plan}
              whole={part}
              unit={unit}
              selected={selected}
              onSelect={setSelected}
              findings={findings.filter((f) => faceOfFinding(f.place.feature) === face)}
              isSolid={shownAs === 'solid'}
              label={`${job.name}: the solid it becomes`}
            />
          ) : (
            <Empty title="Nothing drawn yet">
              <Txt tone="quiet">
                Open a solid (STEP, STL, OBJ, 3MF) or a drawing (DXF, SVG), or build the part from shapes with numbers.
              </Txt>
            </Empty>
          )
        }
        action={
          <Row>
            <Button mode="outlined" style={{ flex: 1 }} onPress={pick}>
              Open a file
            </Button>
            <Button mode="contained" style={{ flex: 1 }} onPress={() => setAdding(true)}>
              Add a shape
            </Button>
          </Row>
        }
      >
        {part.kind === 'plate' && part.features.length > 0 && (
          <Choices label="Shown as a" value={shownAs} options={plainOptions(SHOWN_AS)} onChange={setShownAs} />
        )}
        {part.kind === 'plate' && shownAs === 'drawing' && (facesOf(part).length > 0 || face !== 'top') && (
          <Choices label="Looked at from the" value={face} options={plainOptions(LOOKED_AT)} onChange={look} />
        )}
        <Fields>
          {part.kind === 'plate' && (
            <LengthField
              label="Thickness"
              value={part.thickness}
              unit={unit}
              min={0.05}
              max={2000}
              onChange={(thickness) => edit((j) => ({ ...j, part: { ...j.part, thickness } }), 'thickness')}
            />
          )}
          <LengthField
            label="Tolerance of sizes without limits, ±"
            value={job.tolerance ?? GENERAL_TOLERANCE}
            unit={unit}
            min={0.001}
            max={10}
            onChange={(tolerance) => edit((j) => ({ ...j, tolerance }), 'tolerance')}
          />
        </Fields>
        {revision && <RevisionCard changes={revision} onClose={() => setRevision(undefined)} />}
        {part.kind === 'solid' && <PlanCard {...planning} />}
        {part.kind === 'solid' && tapped !== undefined && (
          <ToldCard job={job} face={tapped} of={part.features.find((f) => f.faces?.includes(tapped))} onTold={told} />
        )}
        {part.kind === 'solid' && <LeftCard part={part} unit={unit} onShow={pickFace} />}
        {findings.map((f, i) => (
          <FindingCard
            key={i}
            finding={f}
            onGo={f.place.feature ? () => (setSelected(f.place.feature), setOpen(true)) : undefined}
            goLabel="Open it"
          />
        ))}
        <FeatureList
          features={part.features}
          unit={unit}
          selected={selected}
          onOpen={(id) => (setSelected(id), setOpen(true))}
        />
        {part.features.length > 0 && (
          <Button compact onPress={() => setSaving(true)} testID="save-as">
            Save as DXF, SVG or STL
          </Button>
        )}
        {/* Last: it comes once it is worked out, and moves nothing from under a finger. */}
        {part.features.length > 1 && <TightCard job={job} onShow={setSelected} />}
      </StagePage>
      {open && (
        <FeatureSheet
          feature={current}
          unit={unit}
          thickness={part.thickness}
          middle={middleOn(part, current ? sideOf(current) : 'top')}
          correct={
            current && (
              <CorrectFields
                part={part}
                feature={current}
                onSplit={() => edit((j) => withInstead(j, [current.id], splitFeature(j.part, current)))}
                onJoin={(joined, other) => edit((j) => withInstead(j, [current.id, other], [joined]))}
              />
            )
          }
          advice={current && <FeatureAdvice job={job} setupId={setup.id} feature={current} edit={edit} />}
          onClose={() => setOpen(false)}
          onChange={(next) =>
            setFeatures((all) => all.map((f) => (f.id === next.id ? landed(f, next) : f)), `feature-${next.id}`)
          }
          onSide={(side) => {
            if (!current) return;
            const place = side === 'top' || side === 'underside' ? {} : middleOn(part, side);
            // Only what is cut from the top leans.
            const next = { ...current, ...place, side: side === 'top' ? undefined : side, lean: undefined };
            setFeatures((all) => all.map((f) => (f.id === current.id ? next : f)), `feature-${current.id}`);
          }}
          onOpposite={(how) => {
            if (!current) return;
            const image = oppositeOf(part, current, how);
            setFeatures((all) => [...all, image]);
            setSelected(image.id);
          }}
          onDelete={() => {
            setFeatures((all) => all.filter((f) => f.id !== selected));
            setOpen(false);
          }}
        />
      )}
      <AddSheet open={adding} onAdd={addShape} onClose={() => setAdding(false)} />
      {isSaving && (
        <SaveSheet
          job={job}
          setupId={setup.id}
          face={face}
          size={bodyAs(part, 'top').size}
          open
          onClose={() => setSaving(false)}
        />
      )}
      <ModelSheet key={model?.name} file={model} unit={unit} onTake={takeSolid} onClose={() => setModel(undefined)} />
      <ImportSheet
        key={file?.name}
        file={file}
        unit={unit}
        thickness={part.thickness}
        onTake={take}
        onClose={() => setFile(undefined)}
      />
    </>
  );
}
