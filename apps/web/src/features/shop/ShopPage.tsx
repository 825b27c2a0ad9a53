import { View } from 'react-native';
import { CONTROLLERS, MACHINES, MATERIALS, formatNumber } from '@tidypath/core';
import { Page } from '../../shell/Page';
import { SPACE } from '../../theme/theme';
import { useWide } from '../../theme/usePalette';
import { Card } from '../../ui/Card';
import { Txt } from '../../ui/Txt';

const n = (v: number, digits = 0) => formatNumber(v, digits);

function Facts({ rows }: { rows: [string, string][] }) {
  return (
    <View style={{ gap: 2 }}>
      {rows.map(([label, value]) => (
        <View key={label} style={{ flexDirection: 'row', justifyContent: 'space-between', gap: SPACE.m }}>
          <Txt kind="small" tone="quiet">
            {label}
          </Txt>
          <Txt kind="small" mono style={{ textAlign: 'right', flexShrink: 1 }}>
            {value}
          </Txt>
        </View>
      ))}
    </View>
  );
}

/** Machines, materials and controllers the shop starts with, and where their numbers come from. */
export function ShopPage() {
  const wide = useWide();
  const width = wide ? '48.5%' : '100%';
  return (
    <Page title="Shop">
      <Txt heading kind="large">
        Machines
      </Txt>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.m }}>
        {MACHINES.map((m) => (
          <Card key={m.id} style={{ width }}>
            <Txt bold>{m.name}</Txt>
            <Facts
              rows={[
                ['Spindle', `${n(m.minRpm)} to ${n(m.maxRpm)} rpm`],
                ['Power, torque', `${n(m.power, 2)} kW, ${n(m.torque, 1)} N·m`],
                ['Feed, rapid', `${n(m.maxFeed)}, ${n(m.rapid)} mm/min`],
                ['Travel', `${n(m.travel.x)} × ${n(m.travel.y)} × ${n(m.travel.z)} mm`],
                ['Acceleration', `${n(m.acceleration)} mm/s²`],
                ['Rigidity', `${n(m.rigidity * 100)} % of a stiff machine`],
              ]}
            />
          </Card>
        ))}
      </View>
      <Txt heading kind="large">
        Materials
      </Txt>
      <Txt tone="quiet">{MATERIALS[0].origin}.</Txt>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.m }}>
        {MATERIALS.map((m) => (
          <Card key={m.id} style={{ width }}>
            <Txt bold>{m.name}</Txt>
            <Facts
              rows={[
                ['Cutting force kc1.1', `${n(m.kc11)} N/mm²`],
                ['Rise mc', n(m.mc, 2)],
                ['Carbide milling', `${n(m.millingSpeed.carbide.from)} to ${n(m.millingSpeed.carbide.to)} m/min`],
                ['Chip load', `${n(m.chipShare.from, 2)} to ${n(m.chipShare.to, 2)} % of D`],
              ]}
            />
            {m.caution && <Txt kind="small">◆ {m.caution}</Txt>}
          </Card>
        ))}
      </View>
      <Txt heading kind="large">
        Controllers
      </Txt>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.m }}>
        {CONTROLLERS.map((c) => (
          <Card key={c.id} style={{ width }}>
            <Txt bold>{c.name}</Txt>
            <Txt kind="small" tone="quiet">
              {c.about}
            </Txt>
          </Card>
        ))}
      </View>
      <Txt kind="small" tone="quiet">
        The numbers are estimates. The machine maker’s limits, the tool maker’s data, your local safety codes and your
        supervisor decide.
      </Txt>
    </Page>
  );
}
