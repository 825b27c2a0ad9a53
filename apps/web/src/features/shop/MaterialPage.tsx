import { View } from 'react-native';
import { HANDBOOK, Material, Range, originOf, parametersOf, startOf } from '@tidypath/core';
import { Card, Fields } from '../../ui/Card';
import { FieldFinding } from '../../ui/FieldFinding';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';
import { ValueForm } from '../../ui/ValueForm';
import { ItemPage } from '../../shell/ItemPage';
import { Origin } from '../../ui/Origin';
import { useDraft } from '../../shell/useDraft';

const FIELDS = parametersOf(Material);

interface RangeRow {
  title: string;
  help: string;
  suffix: string;
  /** Dotted path, for findings. */
  path: string;
  key: keyof Material;
  read: (m: Material) => Range;
  write: (m: Material, range: Range) => Partial<Material>;
}

const speed = (title: string, key: 'millingSpeed' | 'drillingSpeed', by: 'carbide' | 'hss'): RangeRow => ({
  title,
  help: 'surface speed, careful to bold',
  suffix: 'm/min',
  path: `${key}.${by}`,
  key,
  read: (m) => m[key][by],
  write: (m, range) => ({ [key]: { ...m[key], [by]: range } }),
});
const plain = (
  title: string,
  help: string,
  suffix: string,
  key: 'tappingSpeed' | 'chipShare' | 'drillShare',
): RangeRow => ({
  title,
  help,
  suffix,
  path: key,
  key,
  read: (m) => m[key],
  write: (_, range) => ({ [key]: range }),
});

const ROWS: RangeRow[] = [
  speed('Milling, carbide', 'millingSpeed', 'carbide'),
  speed('Milling, HSS', 'millingSpeed', 'hss'),
  speed('Drilling, carbide', 'drillingSpeed', 'carbide'),
  speed('Drilling, HSS', 'drillingSpeed', 'hss'),
  plain('Tapping', 'surface speed, careful to bold', 'm/min', 'tappingSpeed'),
  plain('Chip load', 'largest chip as a share of the diameter (of 20 mm at most), at half width', '%', 'chipShare'),
  plain('Drill feed', 'feed a turn as a share of the diameter', '%', 'drillShare'),
];

/** One material: its force, speeds and chips, each with where it comes from. */
export function MaterialPage({ id }: { id: string }) {
  const draft = useDraft('materials', id);
  const { item: material, findings, change } = draft;
  return (
    <ItemPage shelf="materials" id={id} title={material?.name} back="/shop" draft={draft}>
      {material && (
        <>
          <Txt tone="quiet">{HANDBOOK}. A number you change is marked as the shop’s own.</Txt>
          <Card>
            <Txt heading kind="large">
              Speeds and chips
            </Txt>
            {ROWS.map((row) => {
              const range = row.read(material);
              const set = (more: Partial<Range>) => change(row.write(material, { ...range, ...more }));
              const start = startOf(material, row.key);
              return (
                <View key={row.path}>
                  <Fields>
                    <NumberField
                      label={`${row.title} from`}
                      suffix={row.suffix}
                      value={range.from}
                      min={0}
                      max={5000}
                      onChange={(from) => set({ from })}
                    />
                    <NumberField
                      label={`${row.title} to`}
                      suffix={row.suffix}
                      value={range.to}
                      min={0}
                      max={5000}
                      onChange={(to) => set({ to })}
                    />
                  </Fields>
                  <Txt kind="small" tone="quiet">
                    {row.help}; {originOf(material, row.key) === HANDBOOK ? 'handbook' : 'the shop’s own'}
                  </Txt>
                  {findings
                    .filter((f) => f.place.field === row.path)
                    .map((f) => (
                      <FieldFinding key={f.code} finding={f} />
                    ))}
                  {start !== undefined && (
                    <Origin
                      start={row.read({ ...material, [row.key]: start })}
                      onPutBack={(v) => change(row.write(material, v as Range))}
                    />
                  )}
                </View>
              );
            })}
          </Card>
          <ValueForm
            item={material}
            fields={FIELDS}
            unit="mm"
            findings={findings}
            onChange={change}
            under={(key) => (
              <Origin start={startOf(material, key as keyof Material)} onPutBack={(v) => change({ [key]: v })} />
            )}
          />
        </>
      )}
    </ItemPage>
  );
}
