import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { ActivityIndicator, Button } from 'react-native-paper';
import useSWR from 'swr';
import {
  Bar,
  Controller,
  Holder,
  Machine,
  Material,
  SHELVES,
  ShopItems,
  barText,
  formatNumber,
  ratedPower,
} from '@tidypath/core';
import { api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { useShelf } from '../../api/useShelf';
import { Page } from '../../shell/Page';
import { SPACE } from '../../theme/theme';
import { useWide } from '../../theme/usePalette';
import { Txt } from '../../ui/Txt';
import { LinkCard } from '../../ui/LinkCard';
import { Backups } from './Backups';
import { Devices } from './Devices';
import { HandingOutCard } from './HandingOutCard';
import { People } from './People';
import { ThisDevice } from './ThisDevice';
import { UnreadItems } from '../../ui/UnreadItems';

type Listed = 'machines' | 'materials' | 'holders' | 'bars' | 'controllers';

const n = (v: number, digits = 0) => formatNumber(v, digits);

const LINES: { [K in Listed]: (item: ShopItems[K], materials: Material[]) => string } = {
  machines: (m: Machine) =>
    `${n(m.minRpm)} to ${n(m.maxRpm)} rpm, ${n(ratedPower(m), 2)} kW, feeds to ${n(m.maxFeed)} mm/min, ${n(m.rigidity * 100)} % rigid`,
  materials: (m: Material) => [m.group, m.hardness, `kc1.1 ${n(m.kc11)} N/mm²`].filter(Boolean).join(', '),
  holders: (h: Holder) => `${h.grip}, balanced to ${n(h.balancedRpm)} rpm, grips ${n(h.gripTorque)} N·m`,
  bars: (b: Bar, materials) =>
    barText(
      b,
      materials.find((m) => m.id === b.materialId),
      'mm',
    ),
  controllers: (c: Controller) => c.about,
};

const HEADINGS: Record<Listed, string> = {
  machines: 'Machines',
  materials: 'Materials',
  holders: 'Holders',
  bars: 'Bars and plates',
  controllers: 'Controllers',
};

function Shelf<K extends Listed>({ shelf }: { shelf: K }) {
  const router = useRouter();
  const wide = useWide();
  const { items, kept, error, add } = useShelf(shelf);
  const { items: materials } = useShelf('materials');
  const copy = async () => {
    const like = items[0] ?? SHELVES[shelf].start[0];
    const used = new Set(items.map((i) => i.id));
    let k = items.length + 1;
    while (used.has(`${shelf}-${k}`)) k++;
    const item = { ...like, id: `${shelf}-${k}`, name: `New ${SHELVES[shelf].one}` };
    router.push(`/shop/${shelf}/${await add(item)}`);
  };
  return (
    <View style={{ gap: SPACE.s }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', flexWrap: 'wrap' }}>
        <Txt heading kind="large" style={{ flexGrow: 1 }}>
          {HEADINGS[shelf]}
        </Txt>
        <Button compact icon="plus" disabled={!kept} onPress={() => void copy()}>
          New {SHELVES[shelf].one}
        </Button>
      </View>
      {error && <Txt tone="danger">▲ {error.message}. Trying again.</Txt>}
      <UnreadItems shelf={shelf} />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.s }}>
        {items.map((item) => (
          <View key={item.id} style={{ width: wide ? '49%' : '100%' }}>
            <LinkCard
              title={item.name}
              text={LINES[shelf](item, materials)}
              onPress={() => router.push(`/shop/${shelf}/${item.id}`)}
            />
          </View>
        ))}
      </View>
    </View>
  );
}

/** Whether a list has not arrived yet: shown one by one they would push what stands below from under the finger. */
function useReading(): boolean {
  const lists = [
    useShelf('machines'),
    useShelf('materials'),
    useShelf('holders'),
    useShelf('bars'),
    useShelf('controllers'),
  ];
  const people = useSWR(KEYS.people, api.people);
  const handingOut = useSWR(KEYS.handingOut, api.handingOut);
  return [people, handingOut].some(({ data, error }) => !data && !error) || lists.some((list) => list.loading);
}

/** Machines, materials, holders, bars and controllers of the shop. */
export function ShopPage() {
  if (useReading())
    return (
      <Page title="Shop">
        <ActivityIndicator accessibilityLabel="Reading the shop" />
      </Page>
    );
  return (
    <Page title="Shop">
      <Shelf shelf="machines" />
      <Shelf shelf="materials" />
      <Shelf shelf="holders" />
      <Shelf shelf="bars" />
      <Shelf shelf="controllers" />
      <People />
      <HandingOutCard />
      <ThisDevice />
      <Devices />
      <Backups />
      <Txt kind="small" tone="quiet">
        The numbers are estimates. The machine maker’s limits, the tool maker’s data, your local safety codes and your
        supervisor decide.
      </Txt>
    </Page>
  );
}
