import { ReactNode, RefObject, memo, useMemo, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import {
  LengthUnit,
  SurfaceView,
  Tool,
  bodiesOf,
  boxOf,
  clampsBefore,
  formatLength,
  formatThin,
  bodiesEverywhere,
  groundOf,
  stockEverywhere,
  type Vec3,
  partModel,
  sectionAt,
} from '@tidypath/core';
import { LEFT_STEPS, SPACE, TEMPER } from '../theme/theme';
import { usePalette } from '../theme/usePalette';
import { Txt } from '../ui/Txt';
import { useCalmJob } from '../session/JobContext';
import type { Angle } from './terms';
import { SceneCanvas } from './SceneCanvas';
import { partEdges, planSegments, within } from './segments';

interface Props {
  /** Show only this operation's path. */
  operationId?: string;
  showPath?: boolean;
  /** The finished stock, or the raw block. */
  stock: 'raw' | 'cut';
  /** Another piece than the one that was proved: as somebody really cut it. */
  piece?: SurfaceView;
  /** The operation whose jaws and clamps are shown, as it finds or as it leaves them; the chosen one, or the start, where left out. */
  heldAt?: string;
  heldAfter?: string;
  moment?: { at: Vec3; tool: Tool; heights: Float32Array };
  marks?: Vec3[];
  /** Where somebody probed. */
  pins?: Vec3[];
  /** Colours the stock by how far it is from the part. */
  against?: boolean;
  onTap?: (at: Vec3) => void;
  cameraRef?: RefObject<(() => Promise<Uint8Array | undefined>) | null>;
  /** Further buttons under the picture. */
  buttons?: ReactNode;
}

/** Colours in a row, from what they mean at one end to what they mean at the other. */
function ColourKey({ label, from, to, colours }: { label: string; from: string; to: string; colours: string[] }) {
  const palette = usePalette();
  return (
    <View
      accessible
      role="img"
      aria-label={label}
      style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.xs }}
    >
      <Txt kind="small" tone="quiet">
        {from}
      </Txt>
      {colours.map((c) => (
        <View
          key={c}
          style={{ width: 16, height: 10, backgroundColor: c, borderWidth: 1, borderColor: palette.line }}
        />
      ))}
      <Txt kind="small" tone="quiet">
        {to}
      </Txt>
    </View>
  );
}

/** The bite's colours, light to heavy. */
const TemperKey = () => (
  <ColourKey
    label="Path colours: pale is a light bite, dark blue a full slot"
    from="light bite"
    to="slot"
    colours={[...TEMPER]}
  />
);

/** The colours of a piece held against the part. */
function LeftKey({ unit }: { unit: LengthUnit }) {
  const palette = usePalette();
  const [least, most] = [LEFT_STEPS[0], LEFT_STEPS[LEFT_STEPS.length - 1]];
  return (
    <ColourKey
      label={`Colours: red is cut into the part, grey as wanted, then metal left from ${formatLength(least, unit)} to ${formatLength(most, unit)} and more`}
      from="cut into"
      to={`left, to ${formatThin(most, unit)}`}
      colours={[palette.danger, palette.right, ...TEMPER]}
    />
  );
}

/** Stock, part, path, fixtures and tool of the job at hand. */
export const JobView = memo(function JobView({
  operationId,
  heldAt,
  heldAfter,
  showPath = true,
  stock,
  piece,
  moment,
  marks,
  against,
  buttons,
  ...more
}: Props) {
  const { job, setup, computed } = useCalmJob();
  const { plan, proof, proofFresh } = computed;
  const [fit, setFit] = useState<{ angle: Angle; count: number }>({ angle: 'corner', count: 0 });
  const { job: seen, stock: block, zero, held, work } = useMemo(() => groundOf(job, setup, partModel), [job, setup]);
  const blocks = useMemo(() => stockEverywhere(setup, block), [setup, block]);
  const edges = useMemo(() => partEdges(seen.part, work.leaning), [seen.part, work.leaning]);
  const fixtures = useMemo(
    () =>
      bodiesEverywhere(setup, [
        ...(heldAfter ? clampsBefore(setup, heldAfter, true) : clampsBefore(setup, heldAt ?? operationId)).map(boxOf),
        ...bodiesOf(held),
      ]),
    [setup, held, heldAfter, heldAt, operationId],
  );
  const cut = piece ?? (stock === 'cut' ? proof?.surface : undefined);

  const path = useMemo(() => {
    if (!showPath || !plan) return {};
    if (!proof || !proofFresh)
      return planSegments(plan.planned.filter((p) => !operationId || p.operationId === operationId));
    const sections = plan.programs.length === 1 ? plan.programs[0].sections : [];
    const isOne = sections.some((s) => s.operationId === operationId);
    const belongs = isOne
      ? (line: number) => sections[sectionAt(sections, line)]?.operationId === operationId
      : undefined;
    return { cut: within(proof.cut, belongs), rapid: within(proof.rapid, belongs) };
  }, [showPath, plan, proof, proofFresh, operationId]);

  const tool = useMemo(() => moment && { at: moment.at, tool: moment.tool }, [moment]);
  const look = (angle: Angle) => setFit((f) => ({ angle, count: f.count + 1 }));

  return (
    <View style={{ flex: 1, minHeight: 0 }}>
      <SceneCanvas
        stock={cut ?? blocks}
        heights={stock === 'cut' && !piece ? moment?.heights : undefined}
        edges={edges}
        seeThrough={!cut}
        {...path}
        fixtures={fixtures}
        zero={zero}
        tool={tool}
        marks={marks}
        allowed={against ? proof?.allowed : undefined}
        {...more}
        fit={fit}
        label={`${job.name}: stock, part and path`}
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', paddingHorizontal: SPACE.s }}>
        {(['corner', 'top', 'front'] as const).map((angle) => (
          <Button key={angle} compact onPress={() => look(angle)} accessibilityLabel={`Fit from the ${angle}`}>
            {angle}
          </Button>
        ))}
        {buttons}
        <View style={{ flex: 1 }} />
        {against ? <LeftKey unit={job.unit} /> : showPath && <TemperKey />}
      </View>
    </View>
  );
});
