/** Tools and outlines that tests work with. */
import { newFeature } from '../src/part/plate/new';
import { Feature } from '../src/part/plate/feature';
import { TOOLS } from '../src/shop/library';
import { Tool } from '../src/shop/tool';

export const tool = (number: number): Tool => TOOLS.find((t) => t.number === number)!;

export const plate = (width = 80, height = 50): Feature =>
  newFeature([], 'outline', 'Plate', { type: 'rectangle', width, height, radius: 0 }, { x: width / 2, y: height / 2 });
