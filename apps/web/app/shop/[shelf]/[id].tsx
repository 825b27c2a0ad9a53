import { useLocalSearchParams } from 'expo-router';
import { BarPage } from '../../../src/features/shop/BarPage';
import { ControllerPage } from '../../../src/features/shop/ControllerPage';
import { HolderPage } from '../../../src/features/shop/HolderPage';
import { MachinePage } from '../../../src/features/shop/MachinePage';
import { MaterialPage } from '../../../src/features/shop/MaterialPage';

const PAGES: Record<string, typeof MachinePage> = {
  machines: MachinePage,
  materials: MaterialPage,
  holders: HolderPage,
  bars: BarPage,
  controllers: ControllerPage,
};

export default function ShopItemRoute() {
  const { shelf, id } = useLocalSearchParams<{ shelf: string; id: string }>();
  const ItemPage = PAGES[String(shelf)] ?? MachinePage;
  return <ItemPage key={id} id={String(id)} />;
}
