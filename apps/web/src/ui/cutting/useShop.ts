import { useShelf } from '../../api/useShelf';

/** Tools, holders, machines, controllers and materials the shop has; empty lists until they have been read. */
export function useShop() {
  return {
    tools: useShelf('tools').items,
    holders: useShelf('holders').items,
    machines: useShelf('machines').items,
    controllers: useShelf('controllers').items,
    materials: useShelf('materials').items,
  };
}
