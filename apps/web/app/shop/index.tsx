export { ShopPage as default } from '../../src/features/shop/ShopPage';
