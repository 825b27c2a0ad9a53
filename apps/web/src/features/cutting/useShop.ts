import { useShelf } from '../../api/useShelf';

/** Tools, holders, machines and materials the shop has; empty lists until they have been read. */
export function useShop() {
  return {
    tools: useShelf('tools').items,
    holders: useShelf('holders').items,
    machines: useShelf('machines').items,
    materials: useShelf('materials').items,
  };
}
